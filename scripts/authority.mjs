/**
 * A certificate authority of one's own, for tablets on a local network. It may vouch for the names
 * that it was made for and no other: whoever steals its key cannot pass for a bank. Written with
 * @peculiar/x509 on Node's own Web Crypto.
 */
import "reflect-metadata";
import { webcrypto } from "node:crypto";
import { isIP, isIPv4 } from "node:net";
import * as x509 from "@peculiar/x509";

x509.cryptoProvider.set(webcrypto);

const DAY_MS = 86_400_000;
/** Browsers take no server's certificate that is valid for longer (CA/Browser Forum, 398 days). */
export const SERVER_DAYS = 397;
/** As long as a set of tablets is used. */
export const AUTHORITY_DAYS = 3650;
const ALGORITHM = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" };
/** Clocks of tablets may be a little behind. */
const BEFORE_MS = 3_600_000;

const serial = () => Buffer.from(webcrypto.getRandomValues(new Uint8Array(16))).toString("hex");

/** One DER element: a tag, a length, the content. */
function der(tag, ...parts) {
  const content = Buffer.concat(parts);
  if (content.length < 128) return Buffer.concat([Buffer.from([tag, content.length]), content]);
  const length = Buffer.from(content.length.toString(16).padStart(4, "0"), "hex");
  return Buffer.concat([Buffer.from([tag, 0x82]), length, content]);
}

const SEQUENCE = 0x30;
const PERMITTED = 0xa0;
const EXCLUDED = 0xa1;
const DNS_NAME = 0x82;
const IP_ADDRESS = 0x87;

/** The bytes of an address. */
function addressBytes(address) {
  if (isIPv4(address)) return Buffer.from(address.split(".").map(Number));
  const [head = "", tail] = address.split("::");
  const words = (text) => (text === "" ? [] : text.split(":"));
  const left = words(head);
  const right = tail === undefined ? [] : words(tail);
  const middle = Array(8 - left.length - right.length).fill("0");
  return Buffer.from(
    [...left, ...middle, ...right].map((word) => word.padStart(4, "0")).join(""),
    "hex",
  );
}

/**
 * NameConstraints (RFC 5280, 4.2.1.10): these names and addresses, and nothing else of either kind.
 */
function nameConstraints(names) {
  const tree = (tag, bytes) => der(SEQUENCE, der(tag, bytes));
  const permitted = names.map((name) => {
    if (isIP(name) === 0) return tree(DNS_NAME, Buffer.from(name, "ascii"));
    const bytes = addressBytes(name);
    return tree(IP_ADDRESS, Buffer.concat([bytes, Buffer.alloc(bytes.length, 0xff)]));
  });
  // A kind that is not named at all would be free: it is excluded whole.
  const excluded = [];
  if (!names.some((name) => isIP(name) !== 0))
    excluded.push(tree(IP_ADDRESS, Buffer.alloc(8)), tree(IP_ADDRESS, Buffer.alloc(32)));
  if (!names.some((name) => isIP(name) === 0)) excluded.push(tree(DNS_NAME, Buffer.alloc(0)));
  const parts = [der(PERMITTED, ...permitted)];
  if (excluded.length > 0) parts.push(der(EXCLUDED, ...excluded));
  return new x509.Extension("2.5.29.30", true, der(SEQUENCE, ...parts));
}

async function keyPair() {
  return webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"]);
}

async function keyPem(key) {
  const bytes = await webcrypto.subtle.exportKey("pkcs8", key);
  return `${x509.PemConverter.encode(bytes, "PRIVATE KEY")}\n`;
}

async function keyOf(pem) {
  const [bytes] = x509.PemConverter.decode(pem);
  return webcrypto.subtle.importKey("pkcs8", bytes, ALGORITHM, true, ["sign"]);
}

/**
 * Makes an authority for some names and addresses.
 * @returns `key` and `certificate` as PEM
 */
export async function makeAuthority(names, at) {
  const keys = await keyPair();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Sprezza of ${names[0]}`,
    notBefore: new Date(at.getTime() - BEFORE_MS),
    notAfter: new Date(at.getTime() + AUTHORITY_DAYS * DAY_MS),
    keys,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(
        x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign,
        true,
      ),
      nameConstraints(names),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { key: await keyPem(keys.privateKey), certificate: `${certificate.toString("pem")}\n` };
}

/**
 * Makes the server's certificate for names that the authority may vouch for.
 * @param authority PEM of its key and certificate
 */
export async function issueServer(authority, names, at) {
  const issuer = new x509.X509Certificate(authority.certificate);
  const keys = await keyPair();
  const end = Math.min(at.getTime() + SERVER_DAYS * DAY_MS - BEFORE_MS, issuer.notAfter.getTime());
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    // No name of a host: what is no name is bound by no constraint, and names stand below.
    subject: "CN=Sprezza server",
    issuer: issuer.subject,
    notBefore: new Date(at.getTime() - BEFORE_MS),
    notAfter: new Date(end),
    publicKey: keys.publicKey,
    signingKey: await keyOf(authority.key),
    signingAlgorithm: ALGORITHM,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((name) => ({ type: isIP(name) === 0 ? "dns" : "ip", value: name })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer.publicKey),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { key: await keyPem(keys.privateKey), certificate: `${certificate.toString("pem")}\n` };
}
