/**
 * `npm run certificate -- NAME …`: a certificate for this server on a local network, by an authority
 * of its own that tablets are told to trust once. NAME is a host name or an address; without any,
 * this machine's own. Again: the same authority makes a new server certificate, and no tablet notices.
 */
import { X509Certificate } from "node:crypto";
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { isIP } from "node:net";
import { hostname, networkInterfaces } from "node:os";
import path from "node:path";
import { SetupProblem } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { home, writableFolder } from "./own.mjs";
import { fingerprint, tlsFiles } from "./tls.mjs";

/** This machine as others on its network find it, and as itself. */
function ownNames() {
  const plain = hostname()
    .toLowerCase()
    .replace(/[^a-z0-9.-]/g, "");
  const addresses = Object.values(networkInterfaces()).flatMap((some) =>
    (some ?? []).flatMap((one) => (!one.internal && one.family === "IPv4" ? [one.address] : [])),
  );
  const names = plain.includes(".") || plain === "" ? [plain] : [`${plain}.local`, plain];
  return [...names, ...addresses].filter((name) => name !== "");
}

const NAME =
  /^(?=.{1,253}$)[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*$/;

function wantedNames(args) {
  const given = args.filter((one) => !one.startsWith("--")).map((one) => one.toLowerCase());
  for (const name of given) {
    if (isIP(name) === 0 && !NAME.test(name))
      throw new SetupProblem(
        `"${name}" is no host name and no address. For example: npm run certificate -- gym.local 192.168.1.20`,
      );
  }
  const names = given.length > 0 ? given : ownNames();
  // The server's own browser opens it too.
  return [...new Set([...names, "localhost", "127.0.0.1"])];
}

/** A key that is somebody else's, or open to others, is used by nobody. */
function ownKey(file) {
  const { uid, mode } = statSync(file);
  const self = process.getuid?.();
  if (self !== undefined && uid !== self) {
    throw new SetupProblem(
      `${file} belongs to another user (${uid}, you are ${self}): nothing was changed. Run this as that user, or give the key to yourself: chown ${self} ${file}`,
    );
  }
  if ((mode & 0o077) !== 0) {
    throw new SetupProblem(
      `${file} can be read by others (mode ${(mode & 0o777).toString(8)}): nothing was changed. Close it: chmod 600 ${file}. If somebody may have read it, make a new authority: npm run certificate -- --new-authority`,
    );
  }
  return readFileSync(file, "utf8");
}

/** Whole or not at all. */
function keep(file, text, mode) {
  const part = `${file}.part`;
  writeFileSync(part, text, { mode });
  chmodSync(part, mode);
  renameSync(part, file);
}

await orSentence(async () => {
  const args = process.argv.slice(2);
  const names = wantedNames(args);
  ensurePackages();
  const folder = writableFolder(path.join(home(), "tls"));
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const files = tlsFiles(home());
  const { issueServer, makeAuthority } = await import("./authority.mjs");
  const fresh = args.includes("--new-authority") || !existsSync(files.authority);
  const at = new Date();
  const authority = fresh
    ? await makeAuthority(names, at)
    : { key: ownKey(files.authorityKey), certificate: readFileSync(files.authority, "utf8") };
  const known = fresh ? names : JSON.parse(readFileSync(files.names, "utf8"));
  const beyond = names.find((name) => !known.includes(name));
  if (beyond) {
    throw new SetupProblem(
      `This authority vouches for ${known.join(", ")} and no other name; ${beyond} is none of them. Nothing was changed. Leave it out, or make a new authority with all names, which every tablet must be told to trust again: npm run certificate -- --new-authority ${names.join(" ")}`,
    );
  }
  const server = await issueServer(authority, names, at);
  if (fresh) {
    keep(files.authorityKey, authority.key, 0o600);
    keep(files.authority, authority.certificate, 0o644);
    keep(files.names, `${JSON.stringify(names)}\n`, 0o644);
  }
  keep(files.key, server.key, 0o600);
  keep(files.certificate, server.certificate, 0o644);
  const until = new X509Certificate(server.certificate).validTo;
  console.log(`A certificate for ${names.join(", ")}, until ${until}.`);
  console.log(`${files.certificate} and ${files.key}: npm start takes them by itself.`);
  console.log(
    fresh
      ? "\nTell each tablet and phone once to trust its authority. Start the server with TRUST_PORT=8080: the page at http://…:8080 hands it out. Before you trust it, compare this fingerprint with the one on that page:"
      : "\nThe authority is the one from before: no tablet has to do anything. Its fingerprint:",
  );
  console.log(`\n${fingerprint(authority.certificate)}\n`);
});
