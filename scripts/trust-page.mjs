/**
 * The page that tablets open once, over plain HTTP, to be told whom to trust: it hands the
 * authority's certificate out and shows its fingerprint. Nothing else is answered here: everything
 * sends on to the server's own address.
 */
import http from "node:http";
import { fingerprint } from "./tls.mjs";

const FILE = "/sprezza-authority.crt";

/** The host as it was asked for, without its port; undefined for anything that is none. */
const hostOf = (header) => /^([a-z0-9.-]+|\[[0-9a-f:]+\])(:\d+)?$/i.exec(header ?? "")?.[1];

const page = (print, server) => `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Trust this server · Sprezza</title>
<style>
body { font: 1.125rem/1.5 system-ui, sans-serif; max-width: 40rem; margin: 0 auto; padding: 1rem; background: #faf7f2; color: #1c2530; }
h1 { font-size: 1.5rem; } ol { padding-left: 1.25rem; } li { margin: .75rem 0; }
pre { font: 1.25rem/1.6 ui-monospace, monospace; border: 1px solid #8a8378; padding: .75rem; overflow-x: auto; background: #fff; }
a.go { display: inline-block; padding: .75rem 1.25rem; border: 1px solid #1f4e79; background: #1f4e79; color: #fff; text-decoration: none; border-radius: 4px; }
</style>
<h1>Trust this server</h1>
<p>Once for each tablet or phone. Afterwards it opens Sprezza without a warning, and keeps working
when the network drops.</p>
<ol>
<li>Compare this fingerprint with the one that the server's terminal printed
(<code>npm run certificate</code> prints it again). If a single pair differs, stop: somebody stands
between you and the server.<pre>${print}</pre></li>
<li><a class="go" href="${FILE}" download>Take the authority's certificate</a></li>
<li>Install it as an authority:
<ul>
<li>iPad, iPhone: open the file, then Settings › General › VPN &amp; Device Management › install;
then General › About › Certificate Trust Settings › switch it on.</li>
<li>Android: Settings › Security › More › Install a certificate › CA certificate.</li>
<li>Windows: open the file › Install Certificate › Trusted Root Certification Authorities.</li>
<li>Linux, macOS: in the browser's or the system's settings for certificates, under Authorities.</li>
</ul></li>
<li>Open <a href="${server}">${server}</a></li>
</ol>
<p>The authority can vouch for this server's names only, and for no other site. To take it away
again, delete it where you installed it.</p>
</html>
`;

/**
 * The listener of the trust page.
 * @param settings `authority`: its certificate (PEM); `securePort`: where the server itself is
 */
export function trustListener({ authority, securePort }) {
  const print = fingerprint(authority);
  return (request, response) => {
    const host = hostOf(request.headers.host);
    const headers = {
      "cache-control": "no-store",
      "x-content-type-options": "nosniff",
      "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'",
      "referrer-policy": "no-referrer",
    };
    if (host === undefined) {
      response.writeHead(400, { ...headers, "content-type": "text/plain; charset=utf-8" });
      response.end("Open this by the server's name or address.");
      return;
    }
    const port = securePort();
    const server = `https://${host}${port === 443 ? "" : `:${port}`}/`;
    const [path] = (request.url ?? "/").split("?");
    const reads = request.method === "GET" || request.method === "HEAD";
    if (reads && path === FILE) {
      response.writeHead(200, {
        ...headers,
        "content-type": "application/x-x509-ca-cert",
        "content-disposition": 'attachment; filename="sprezza-authority.crt"',
      });
      response.end(request.method === "HEAD" ? undefined : authority);
    } else if (reads && path === "/") {
      response.writeHead(200, { ...headers, "content-type": "text/html; charset=utf-8" });
      response.end(request.method === "HEAD" ? undefined : page(print, server));
    } else {
      response.writeHead(307, { ...headers, location: server });
      response.end();
    }
  };
}

/** Listens for tablets; `refused` is told a sentence where the port cannot be had. */
export function serveTrustPage(port, host, settings, refused) {
  const server = http.createServer(trustListener(settings));
  server.headersTimeout = 10_000;
  server.requestTimeout = 15_000;
  server.on("error", (error) => {
    refused(
      error.code === "EADDRINUSE"
        ? `TRUST_PORT ${port} on ${host} is in use. Set TRUST_PORT to a free one.`
        : `The trust page could not be served: ${error.message}`,
    );
  });
  server.listen(port, host);
  return server;
}
