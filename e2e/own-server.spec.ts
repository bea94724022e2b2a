import { spawnSync } from "node:child_process";
import { readFileSync, rmSync, statSync } from "node:fs";
import { request as httpRequest } from "node:http";
import { createServer, type Server, type Socket } from "node:net";
import path from "node:path";
import postgres from "postgres";
import { type Cluster, startCluster } from "../scripts/cluster.mjs";
import { type RunningServer, startServer } from "../scripts/run.mjs";
import { expect, type Page, test } from "./test";

/**
 * A PostgreSQL server of somebody's own, prepared by its one command; a mail server that stands in;
 * and the demo and a team's own data, which never mix.
 */
test.describe.configure({ mode: "serial" });

const home = path.join("/var/tmp", `sprezza-prepared-${process.pid}`);
const PORT = 4930 + (process.env.BROWSER_PART === "b" ? 40 : 0);
let cluster: Cluster;
let server: RunningServer | undefined;
let address = "";

/** Takes letters, as a mail server does, and keeps what was said. */
class Mailbox {
  readonly letters: Array<{ to: string; text: string }> = [];
  #server: Server | undefined;
  async open(): Promise<number> {
    this.#server = createServer((socket) => this.#talk(socket));
    await new Promise<void>((resolve) => this.#server?.listen(0, "127.0.0.1", resolve));
    return (this.#server.address() as { port: number }).port;
  }
  close(): void {
    this.#server?.close();
  }
  #talk(socket: Socket): void {
    let to = "";
    let body: string | undefined;
    let rest = "";
    socket.on("error", () => {});
    socket.write("220 stand-in\r\n");
    socket.on("data", (chunk) => {
      rest += String(chunk);
      for (let end = rest.indexOf("\r\n"); end >= 0; end = rest.indexOf("\r\n")) {
        const line = rest.slice(0, end);
        rest = rest.slice(end + 2);
        if (body !== undefined) {
          if (line === ".") {
            // Long lines are folded for the way.
            this.letters.push({ to, text: body.replace(/=\r?\n/g, "").replace(/=3D/g, "=") });
            body = undefined;
            socket.write("250 taken\r\n");
          } else body += `${line}\n`;
        } else if (/^RCPT TO:<(.*)>/i.test(line)) {
          to = /<(.*)>/.exec(line)?.[1] ?? "";
          socket.write("250 ok\r\n");
        } else if (line === "DATA") {
          body = "";
          socket.write("354 go on\r\n");
        } else if (line === "QUIT") socket.end("221 bye\r\n");
        else socket.write("250 ok\r\n");
      }
    });
  }
}
const mailbox = new Mailbox();

const { DATABASE_URL, AUTH_DATABASE_URL, OWNER_DATABASE_URL, SPREZZA_NOW, ...shell } = process.env;
const prepare = (env: Record<string, string>, ...args: string[]) =>
  spawnSync("npm", ["run", "--silent", "database:prepare", "--", ...args], {
    encoding: "utf8",
    env: { ...shell, SPREZZA_DATA: home, ADMIN_DATABASE_URL: "", ...env },
  });
const said = (result: { stderr: string }) => result.stderr.replace(/^npm warn.*$/gm, "").trim();

test.beforeAll(async () => {
  rmSync(home, { recursive: true, force: true });
  cluster = await startCluster(path.join(home, "server"), 54_990);
});
test.afterAll(async () => {
  await server?.stop();
  mailbox.close();
  cluster.stop();
  rmSync(home, { recursive: true, force: true });
});

test("one command makes roles, database and tables; again it keeps them", async () => {
  const nowhere = prepare({});
  expect(nowhere.status).toBe(1);
  expect(said(nowhere)).toContain("Set ADMIN_DATABASE_URL");
  const away = prepare({ ADMIN_DATABASE_URL: "postgres://postgres:x@127.0.0.1:1/postgres" });
  expect(away.status).toBe(1);
  expect(said(away)).toContain("The PostgreSQL server does not answer");
  const wrong = prepare({
    ADMIN_DATABASE_URL: cluster.url("postgres", "postgres").replace(/:[^:@]+@/, ":wrong@"),
  });
  expect(wrong.status).toBe(1);
  expect(said(wrong)).toContain("refused the password");

  const admin = { ADMIN_DATABASE_URL: cluster.url("postgres", "postgres") };
  const made = prepare(admin);
  expect(said(made)).toBe("");
  expect(made.stdout).toContain("The database sprezza is ready");
  const file = path.join(home, "settings.env");
  // As root the mode is all there is between the secrets and everybody else.
  expect(statSync(file).mode & 0o077).toBe(0);
  const settings = readFileSync(file, "utf8");
  expect(prepare(admin).status).toBe(0);
  expect(readFileSync(file, "utf8")).toBe(settings);

  // Without the settings the roles are somebody else's: they are left alone.
  rmSync(file);
  const strange = prepare(admin);
  expect(strange.status).toBe(1);
  expect(said(strange)).toContain("is on this server already");
  expect(prepare(admin, "--new-passwords").status).toBe(0);
  expect(readFileSync(file, "utf8")).not.toBe(settings);
});

const settingsOf = () =>
  Object.fromEntries(
    readFileSync(path.join(home, "settings.env"), "utf8")
      .trim()
      .split("\n")
      .map((line) => [line.slice(0, line.indexOf("=")), line.slice(line.indexOf("=") + 1)]),
  );

test("@whole a team on it; invitations and password links by mail", async ({ browser }) => {
  const mailPort = await mailbox.open();
  server = startServer({
    ...shell,
    ...settingsOf(),
    NODE_ENV: "production",
    PORT: String(PORT),
    FIRST_RUN_CODE: "ABCD-EFGH",
    SMTP_URL: `smtp://127.0.0.1:${mailPort}`,
    PUBLIC_URL: `http://127.0.0.1:${PORT}`,
    SPREZZA_DEMO: "0",
    SPREZZA_NOW: undefined,
    LOG_LEVEL: "error",
    SHOW_LOG: "1",
  });
  address = await server.address;
  expect(server.isFirstRun()).toBe(true);
  const somebody = async (): Promise<Page> =>
    (
      await browser.newContext({
        baseURL: address,
        storageState: { cookies: [], origins: [] },
      })
    ).newPage();
  const owner = await somebody();
  await owner.goto("/plan");
  await owner.waitForURL(/\/first-run/);
  // Two of one code at once: one team.
  const other = await somebody();
  await other.goto("/first-run");
  for (const [page, team] of [
    [owner, "By Mail"],
    [other, "By Mail Too"],
  ] as const) {
    await page.getByLabel("Name of the team").fill(team);
    await page.getByLabel("Time zone").fill("Europe/Oslo");
    await page.getByLabel("Your name").fill("Torun Hale");
    await page.getByLabel("Email").fill(`${team.replaceAll(" ", "-").toLowerCase()}@post.example`);
    await page.getByLabel("Password").fill("four words in a row");
    await page.getByLabel("Code from the terminal").fill("abcd efgh");
  }
  await Promise.all(
    [owner, other].map((page) => page.getByRole("button", { name: "Make the team" }).click()),
  );
  const made = owner.getByRole("heading", { name: "First hour" });
  const late = owner.getByText("A team was made here already");
  await expect(made.or(late)).toBeVisible();
  const first = (await made.isVisible()) ? owner : other;
  await expect(first.getByRole("heading", { name: "First hour" })).toBeVisible();
  const admin = postgres(cluster.url("postgres", "sprezza"), { max: 1 });
  const [counts] = await admin`SELECT (SELECT count(*)::int FROM team) AS teams,
    (SELECT count(*)::int FROM auth."user") AS people, (SELECT kind FROM auth.installation) AS kind`;
  expect(counts).toEqual({ teams: 1, people: 1, kind: "own" });
  await admin.end();

  await first.goto("/people");
  const staff = first.getByRole("form", { name: "Staff" });
  await staff.getByLabel("Name").fill("Post Coach");
  await staff.getByLabel("Send to").fill("coach@post.example");
  await staff.getByRole("button").click();
  await expect(first.getByText("Sent to coach@post.example too.")).toBeVisible();
  const invitation = mailbox.letters.at(-1);
  expect(invitation?.to).toBe("coach@post.example");
  const link = /http\S+\/join\/[\w-]+/.exec(invitation?.text ?? "")?.[0] ?? "";
  const coach = await somebody();
  await coach.goto(link);
  await expect(coach.getByLabel("Email")).toHaveValue("coach@post.example");
  await coach.getByLabel("Choose a password").fill("four words in a row");
  await coach.getByRole("button", { name: /^Join / }).click();
  await coach.waitForURL(/\/floor/);

  const forgetful = await somebody();
  const ask = async (email: string) => {
    await forgetful.goto("/forgot");
    await forgetful.getByLabel("Email").fill(email);
    await forgetful.getByRole("button", { name: "Send me a link" }).click();
    await expect(forgetful.getByText("a letter is on its way")).toBeVisible();
  };
  const before = mailbox.letters.length;
  // An address that nobody has is answered alike, and gets no letter.
  await ask("nobody@post.example");
  await ask("Coach@post.example");
  await expect.poll(() => mailbox.letters.length).toBe(before + 1);
  // Whoever asks under another host's name gets the victim no link to that host.
  const poisoned = await new Promise<number>((resolve, reject) => {
    const ask = httpRequest(
      {
        port: PORT,
        host: "127.0.0.1",
        path: "/forgot",
        method: "POST",
        headers: {
          host: "elsewhere.example",
          "content-type": "application/x-www-form-urlencoded",
        },
      },
      (answer) => {
        answer.resume();
        resolve(answer.statusCode ?? 0);
      },
    );
    ask.on("error", reject);
    ask.end("email=coach%40post.example");
  });
  expect(poisoned).toBeLessThan(500);
  await expect.poll(() => mailbox.letters.length).toBe(before + 2);
  for (const letter of mailbox.letters) {
    expect(letter.text).not.toContain("elsewhere.example");
    expect(letter.text).toContain(`http://127.0.0.1:${PORT}/`);
  }
  const reset = /http\S+\/reset\/[\w-]+/.exec(mailbox.letters.at(-1)?.text ?? "")?.[0] ?? "";
  await forgetful.goto(reset);
  await forgetful.getByLabel("New password").fill("other words in a row");
  await forgetful.getByRole("button", { name: "Keep it and sign in" }).click();
  await forgetful.waitForURL(/\/floor/);
  // Whoever was signed in with the old one is out.
  await coach.goto("/plan");
  await coach.waitForURL(/\/sign-in/);
});

test("@whole demo and a team's own data never mix", async () => {
  const start = (env: NodeJS.ProcessEnv) =>
    spawnSync(process.execPath, ["scripts/serve.mjs"], {
      encoding: "utf8",
      env: {
        ...shell,
        NODE_ENV: "production",
        PORT: String(PORT + 1),
        LOG_LEVEL: "silent",
        ...env,
      },
      timeout: 60_000,
    });
  const demo = start({ DATABASE_URL, AUTH_DATABASE_URL, SPREZZA_DEMO: "0" });
  expect(demo.status).toBe(1);
  expect(demo.stderr).toContain("This database holds the demo");
  const unsaid = start({ ...settingsOf(), SMTP_URL: "smtp://127.0.0.1:1", PUBLIC_URL: undefined });
  expect(unsaid.status).toBe(1);
  expect(unsaid.stderr).toContain("set PUBLIC_URL too");
  const own = start({ ...settingsOf(), SPREZZA_DEMO: "1" });
  expect(own.status).toBe(1);
  expect(own.stderr).toContain("This database holds a team of its own");
  const load = spawnSync("npx", ["tsx", "scripts/load-demo.ts"], {
    encoding: "utf8",
    env: { ...shell, OWNER_DATABASE_URL: settingsOf().OWNER_DATABASE_URL },
  });
  expect(load.status).toBe(1);
  expect(load.stderr).toContain("the demo is not loaded into it");
});
