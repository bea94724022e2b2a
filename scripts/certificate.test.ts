import { execFileSync, spawnSync } from "node:child_process";
import { X509Certificate } from "node:crypto";
import { chmodSync, mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import http from "node:http";
import https from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { AUTHORITY_DAYS, issueServer, makeAuthority, SERVER_DAYS } from "./authority.mjs";
import { fingerprint, readTls, tlsFiles } from "./tls.mjs";
import { trustListener } from "./trust-page.mjs";

const home = mkdtempSync(path.join(tmpdir(), "sprezza-tls-"));
const files = tlsFiles(home);
const certificate = (...args: string[]) =>
  spawnSync(process.execPath, ["scripts/certificate.mjs", ...args], {
    encoding: "utf8",
    env: { ...process.env, SPREZZA_DATA: home },
  });
const read = (file: string) => readFileSync(file, "utf8");
const DAY_MS = 86_400_000;

/** What a browser makes of a server: its words, or why it trusts it not. */
async function connect(
  server: { key: string; certificate: string },
  ca: string,
  host: string,
): Promise<string> {
  const at = https.createServer({ key: server.key, cert: server.certificate }, (_, response) =>
    response.end("hello"),
  );
  await new Promise<void>((resolve) => at.listen(0, "127.0.0.1", resolve));
  const { port } = at.address() as AddressInfo;
  const isAddress = /^[\d.]+$/.test(host);
  return new Promise((resolve) => {
    https
      .get(
        {
          host: "127.0.0.1",
          port,
          ca,
          ...(isAddress ? {} : { servername: host }),
          // The chain is what is asked here.
          checkServerIdentity: () => undefined,
          headers: { host },
        },
        (response) => {
          response.on("data", (piece) => resolve(String(piece)));
        },
      )
      .on("error", (error: Error) => resolve(error.message));
  }).finally(() => at.close()) as Promise<string>;
}

afterAll(() => rmSync(home, { recursive: true, force: true }));

describe("npm run certificate", () => {
  beforeAll(() => {
    const made = certificate("gym.local", "192.168.1.20");
    expect(made.stderr.trim()).toBe("");
    expect(made.stdout).toContain(fingerprint(read(files.authority)));
  });

  it("makes an authority that is bound to its names, and keys that nobody else reads", () => {
    for (const key of [files.authorityKey, files.key])
      expect(statSync(key).mode & 0o777).toBe(0o600);
    const text = execFileSync("openssl", ["x509", "-in", files.authority, "-noout", "-text"], {
      encoding: "utf8",
    });
    expect(text).toMatch(/X509v3 Name Constraints: critical\s+Permitted:/);
    expect(text).toContain("DNS:gym.local");
    expect(text).toContain("IP:192.168.1.20/255.255.255.255");
    expect(text).toMatch(/Basic Constraints: critical\s+CA:TRUE, pathlen:0/);
    const strict = ["verify", "-x509_strict", "-CAfile", files.authority, files.certificate];
    expect(execFileSync("openssl", strict, { encoding: "utf8" })).toContain("OK");
    const leaf = new X509Certificate(read(files.certificate));
    const days = (Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)) / DAY_MS;
    expect(days).toBeLessThanOrEqual(SERVER_DAYS);
    expect(SERVER_DAYS).toBeLessThanOrEqual(397);
    expect(leaf.ca).toBe(false);
    expect(leaf.subjectAltName).toBe(
      "DNS:gym.local, IP Address:192.168.1.20, DNS:localhost, IP Address:127.0.0.1",
    );
  });

  it("makes a new server certificate by the same authority, and refuses another name", () => {
    const before = { authority: read(files.authority), server: read(files.certificate) };
    expect(certificate("gym.local").status).toBe(0);
    expect(read(files.authority)).toBe(before.authority);
    expect(read(files.certificate)).not.toBe(before.server);
    const server = read(files.certificate);
    const other = certificate("other.local");
    expect(other.status).toBe(1);
    expect(other.stderr).toContain("other.local is none of them. Nothing was changed.");
    expect(certificate("no name at all").stderr).toContain("is no host name and no address");
    expect(read(files.certificate)).toBe(server);
  });

  it("uses no key that others may read", () => {
    chmodSync(files.authorityKey, 0o644);
    const open = certificate("gym.local");
    expect(open.status).toBe(1);
    expect(open.stderr).toContain(`chmod 600 ${files.authorityKey}`);
    chmodSync(files.authorityKey, 0o600);
  });

  it.runIf(process.getuid?.() === 0)("uses no key of another user", () => {
    execFileSync("chown", ["65534", files.authorityKey]);
    const strange = certificate("gym.local");
    expect(strange.status).toBe(1);
    expect(strange.stderr).toContain("belongs to another user (65534, you are 0)");
    execFileSync("chown", ["0", files.authorityKey]);
  });
});

describe("the authority", () => {
  const at = new Date();

  it("is trusted for its own names and addresses", async () => {
    const authority = await makeAuthority(["gym.local", "127.0.0.1"], at);
    const server = await issueServer(authority, ["gym.local", "127.0.0.1"], at);
    expect(await connect(server, authority.certificate, "gym.local")).toBe("hello");
    const until = Date.parse(new X509Certificate(authority.certificate).validTo);
    expect(until).toBe(Math.floor((at.getTime() + AUTHORITY_DAYS * DAY_MS) / 1000) * 1000);
  });

  it("vouches for no other name or address, whoever holds its key", async () => {
    const authority = await makeAuthority(["gym.local", "192.168.1.20"], at);
    for (const names of [["bank.example"], ["gym.local", "bank.example"], ["10.0.0.1"]]) {
      const stolen = await issueServer(authority, names, at);
      expect(await connect(stolen, authority.certificate, names[0] ?? "")).toBe(
        "permitted subtree violation",
      );
    }
    // Of names alone: no address; of addresses alone: no name.
    const named = await makeAuthority(["gym.local"], at);
    const address = await issueServer(named, ["gym.local", "8.8.8.8"], at);
    expect(await connect(address, named.certificate, "gym.local")).toBe(
      "excluded subtree violation",
    );
    const numbered = await makeAuthority(["192.168.1.20", "fd00::20"], at);
    const name = await issueServer(numbered, ["bank.example"], at);
    expect(await connect(name, numbered.certificate, "bank.example")).toBe(
      "excluded subtree violation",
    );
    const six = await issueServer(numbered, ["192.168.1.20", "fd00::20"], at);
    expect(await connect(six, numbered.certificate, "192.168.1.20")).toBe("hello");
  });
});

describe("keys and certificates at the start", () => {
  it("each that cannot be used is one sentence", () => {
    expect(readTls({})).toBeUndefined();
    expect(readTls({ TLS_KEY: files.key })?.refused).toContain("belong together");
    const both = { TLS_KEY: files.key, TLS_CERT: files.certificate };
    expect(readTls(both)).toMatchObject({ key: read(files.key), warning: undefined });
    expect(readTls({ ...both, TLS_KEY: files.authorityKey })?.refused).toContain(
      "is not the key of",
    );
    expect(readTls({ ...both, TLS_KEY: `${files.key}.none` })?.refused).toContain("is not there");
    expect(readTls({ ...both, TLS_KEY: files.names })?.refused).toContain("is no private key");
    expect(readTls({ ...both, TLS_CERT: files.names })?.refused).toContain("is no certificate");
    const soon = new Date(Date.now() + 380 * DAY_MS);
    expect(readTls(both, soon)?.warning).toContain("The certificate ends on");
    const late = new Date(Date.now() + 400 * DAY_MS);
    expect(readTls(both, late)?.warning).toContain("browsers refuse it");
  });
});

describe("the trust page", () => {
  let base = "";
  let server: http.Server;
  beforeAll(async () => {
    server = http.createServer(
      trustListener({ authority: read(files.authority), securePort: () => 3443 }),
    );
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => server.close());

  it("shows the fingerprint of the terminal and hands out the certificate, and nothing else", async () => {
    const page = await fetch(base);
    const text = await page.text();
    expect(page.headers.get("content-security-policy")).toContain("default-src 'none'");
    expect(text).toContain(fingerprint(read(files.authority)));
    expect(text).toContain("https://127.0.0.1:3443/");
    const file = await fetch(`${base}/sprezza-authority.crt`);
    expect(file.headers.get("content-type")).toBe("application/x-x509-ca-cert");
    expect(await file.text()).toBe(read(files.authority));
    for (const [method, at] of [
      ["GET", "/authority.key"],
      ["GET", "/../server.key"],
      ["POST", "/"],
      ["GET", "/sign-in?next=//x"],
    ] as const) {
      const sent = await fetch(`${base}${at}`, { method, redirect: "manual" });
      expect(sent.status, at).toBe(307);
      expect(sent.headers.get("location")).toBe("https://127.0.0.1:3443/");
    }
  });

  it("takes no host from a request that is none", async () => {
    const { port } = server.address() as AddressInfo;
    const status = await new Promise((resolve) => {
      http
        .get({ port, host: "127.0.0.1", headers: { host: 'a"><script>' } }, (response) => {
          response.resume();
          resolve(response.statusCode);
        })
        .end();
    });
    expect(status).toBe(400);
  });
});
