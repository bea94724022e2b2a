/** Keys and certificates of the server: where they are, and whether they can be used. */
import { createPrivateKey, X509Certificate } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";

/** A certificate that ends sooner than this is spoken of at every start. */
const SOON_MS = 30 * 86_400_000;

/** The files that `npm run certificate` makes, below the folder of everything that is kept. */
export function tlsFiles(home) {
  const folder = path.join(home, "tls");
  return {
    authorityKey: path.join(folder, "authority.key"),
    authority: path.join(folder, "authority.crt"),
    /** What the authority may vouch for. */
    names: path.join(folder, "authority.names.json"),
    key: path.join(folder, "server.key"),
    certificate: path.join(folder, "server.crt"),
  };
}

/** SHA-256 of a certificate, in lines of eight pairs: to be compared by eye. */
export function fingerprint(pem) {
  const pairs = new X509Certificate(pem).fingerprint256.split(":");
  return [0, 8, 16, 24].map((at) => pairs.slice(at, at + 8).join(" ")).join("\n");
}

function read(setting, file) {
  try {
    return { text: readFileSync(file, "utf8") };
  } catch (error) {
    const why =
      error.code === "ENOENT"
        ? "is not there"
        : error.code === "EACCES"
          ? "may not be read by the user who runs the server: let it belong to that user"
          : `cannot be read (${error.code})`;
    return { refused: `${setting} ${file} ${why}. Correct ${setting}, then start again.` };
  }
}

/**
 * The key and certificate that settings name.
 * @returns `{ key, cert }`, with a `warning` where it ends soon; `{ refused }` with a sentence; or
 *   undefined where none is set
 */
export function readTls({ TLS_KEY, TLS_CERT }, at = new Date()) {
  if (!TLS_KEY && !TLS_CERT) return undefined;
  if (!TLS_KEY || !TLS_CERT)
    return { refused: "TLS_KEY and TLS_CERT belong together: set both, or neither." };
  const key = read("TLS_KEY", TLS_KEY);
  if (key.refused) return key;
  const cert = read("TLS_CERT", TLS_CERT);
  if (cert.refused) return cert;
  let certificate;
  try {
    certificate = new X509Certificate(cert.text);
  } catch {
    return { refused: `TLS_CERT ${TLS_CERT} is no certificate (PEM). Correct TLS_CERT.` };
  }
  try {
    if (!certificate.checkPrivateKey(createPrivateKey(key.text)))
      return {
        refused: `TLS_KEY ${TLS_KEY} is not the key of ${TLS_CERT}: name the two that were made together.`,
      };
  } catch {
    return { refused: `TLS_KEY ${TLS_KEY} is no private key without a password (PEM).` };
  }
  const left = Date.parse(certificate.validTo) - at.getTime();
  const warning =
    left < 0
      ? `The certificate ended on ${certificate.validTo}: browsers refuse it. Make a new one (npm run certificate), then start again.`
      : left < SOON_MS
        ? `The certificate ends on ${certificate.validTo}. Make a new one (npm run certificate), then start again.`
        : undefined;
  return { key: key.text, cert: cert.text, warning };
}
