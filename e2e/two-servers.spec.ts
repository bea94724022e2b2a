import { createServer, request as httpRequest, type Server } from "node:http";
import { freePort } from "../scripts/cluster.mjs";
import { startServer } from "../scripts/run.mjs";
import { entriesOf, makeSession } from "./floor-session";
import { stateFile } from "./people";
import { expect, test } from "./test";

/**
 * Two server processes on one database, behind a proxy that gives each request to the other one in
 * turn: a session's tablets and its floor go on as if there were one.
 */
async function proxyTo(
  targets: readonly URL[],
): Promise<{ base: string; server: Server; counts: number[] }> {
  const counts = targets.map(() => 0);
  let turn = 0;
  const server = createServer((incoming, outgoing) => {
    const to = turn++ % targets.length;
    counts[to] = (counts[to] ?? 0) + 1;
    const target = targets[to] as URL;
    const passed = httpRequest(
      {
        host: target.hostname,
        port: target.port,
        path: incoming.url,
        method: incoming.method,
        headers: incoming.headers,
      },
      (answer) => {
        outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(outgoing);
      },
    );
    passed.on("error", () => outgoing.destroy());
    outgoing.on("close", () => passed.destroy());
    incoming.pipe(passed);
  });
  const port = await freePort(4600);
  await new Promise<void>((ready) => server.listen(port, "127.0.0.1", ready));
  return { base: `http://127.0.0.1:${port}`, server, counts };
}

test("@whole two processes serve one session: what one takes the other shows at once", async ({
  browser,
  baseURL,
}) => {
  const other = startServer({
    ...process.env,
    PORT: String(await freePort(4500)),
    NODE_ENV: "production",
    HOST: "127.0.0.1",
  });
  const proxy = await proxyTo([new URL(baseURL ?? ""), new URL(await other.address)]);
  const session = await makeSession("Two servers", { sets: 3, secondRack: true });
  // The same sign-in: both processes ask the same database who somebody is.
  const context = await browser.newContext({
    storageState: stateFile("coach"),
    baseURL: proxy.base,
  });
  try {
    const cookies = await context.cookies(baseURL);
    await context.addCookies(cookies.map((one) => ({ ...one, domain: "127.0.0.1" })));
    const floor = await context.newPage();
    await floor.goto(`/floor/${session.id}`);
    await expect(floor.getByText(/0 of 9 sets/)).toBeVisible();
    const tablets = [await context.newPage(), await context.newPage()];
    for (const [i, tablet] of tablets.entries()) {
      await tablet.goto(`/rack/${session.id}/${i === 0 ? session.rackId : session.otherRackId}`);
      await tablet.getByTestId("load").waitFor();
    }
    for (let set = 0; set < 3; set++)
      for (const tablet of tablets) {
        await expect(async () => {
          await tablet.keyboard.press("=");
          await expect(tablet.getByTestId("verdict")).toHaveText(/^By eye/, { timeout: 1000 });
        }).toPass();
        await tablet.keyboard.press("n");
      }
    await expect(floor.getByText(/6 of 9 sets/)).toBeVisible();
    for (const tablet of tablets)
      await expect(tablet.getByText("saved here and sent")).toBeVisible();
    // A sign of life that one process took is known to both.
    const signs = async () => {
      const answers = [];
      for (let i = 0; i < 4; i++) {
        const answer = await context.request.get(`/api/live/${session.id}?stations`);
        answers.push((await answer.json()).stations.length);
      }
      return Math.min(...answers);
    };
    await expect.poll(signs, { timeout: 30_000 }).toBe(2);
    // Both were asked, and each entry stands once, in one order.
    expect(Math.min(...proxy.counts)).toBeGreaterThan(20);
    const entries = await entriesOf(session.id);
    expect(new Set(entries.map((one) => one.id)).size).toBe(entries.length);
    // One process is taken away in the middle: the other goes on.
    await other.stop();
    await expect(async () => {
      await tablets[0]?.keyboard.press("=");
      await expect(floor.getByText(/7 of 9 sets/)).toBeVisible({ timeout: 2000 });
    }).toPass({ timeout: 30_000 });
  } finally {
    await context.close();
    await other.stop().catch(() => {});
    proxy.server.closeAllConnections();
    proxy.server.close();
  }
});
