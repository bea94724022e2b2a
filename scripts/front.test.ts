import { describe, expect, it } from "vitest";
import { clientAddress, headersOn, processFor, trustedProxies } from "./front.mjs";

describe("where a client is", () => {
  const none = trustedProxies("");
  const proxies = trustedProxies("10.0.0.0/8, 192.0.2.7, 2001:db8::/32");

  it.each([
    [
      "the connection's address, where no proxy is trusted",
      "203.0.113.9",
      "198.51.100.1",
      none,
      "203.0.113.9",
    ],
    [
      "a client who forges one is not believed",
      "203.0.113.9",
      "10.0.0.1, 8.8.8.8",
      proxies,
      "203.0.113.9",
    ],
    ["a trusted proxy's word", "10.1.2.3", "198.51.100.1", proxies, "198.51.100.1"],
    [
      "the nearest that is no proxy, not what came before it",
      "10.1.2.3",
      "8.8.8.8, 198.51.100.1, 192.0.2.7",
      proxies,
      "198.51.100.1",
    ],
    ["IPv6, and IPv4 written as such", "::ffff:10.1.2.3", "2001:db9::1", proxies, "2001:db9::1"],
    ["a proxy that says nothing", "10.1.2.3", undefined, proxies, "10.1.2.3"],
    ["a proxy that says no address", "10.1.2.3", "unknown", proxies, "10.1.2.3"],
    ["a connection that has gone", undefined, undefined, proxies, "unknown"],
  ] as const)("%s", (_, remote, forwarded, trusted, expected) => {
    expect(clientAddress(remote, forwarded, trusted)).toBe(expected);
  });

  it("names the setting where it holds no address", () => {
    expect(() => trustedProxies("10.0.0.0/8, proxy.local")).toThrow(
      'TRUSTED_PROXIES: "proxy.local" is no address.',
    );
  });
});

it("passes on the message's headers, not the connection's, and none that only we may say", () => {
  expect(
    headersOn([
      ...["Host", "club.example", "Connection", "keep-alive, X-Hop", "X-Hop", "1"],
      ...["Transfer-Encoding", "chunked", "X-Front-Key", "guess", "x-client-address", "1.2.3.4"],
      ...["Cookie", "a=1", "Cookie", "b=2", "Upgrade", "h2c"],
    ]),
  ).toEqual(["Host", "club.example", "Cookie", "a=1", "Cookie", "b=2"]);
});

it.each([
  ["/api/log/x", "floor"],
  ["/api/live/x?after=3", "floor"],
  ["/api/logx", "pages"],
  ["/floor/x", "pages"],
  ["/", "pages"],
])("%s is answered by %s", (url, name) => {
  expect(processFor(url)).toBe(name);
});
