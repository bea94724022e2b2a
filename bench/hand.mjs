/**
 * A hand at a page: what it does is recorded from the page's own events, and counted by the
 * keystroke-level model (Card, Moran & Newell 1980). K 0.28 s a key, P 1.1 s to point, B 0.1 s to press or
 * let go, H 0.4 s from hand to hand, M 1.35 s before each command and each thing that is typed. Choosing
 * from a list that opens is two points and two presses.
 */
import { chromium } from "@playwright/test";

/** A coach, signed in, whose hand is recorded. */
export async function handAtPage() {
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium-headless-shell",
    args: ["--no-sandbox", "--disable-gpu"],
  });
  const context = await browser.newContext({
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  /** Everything that a hand does, in order. */
  const recorded = [];
  await page.exposeFunction("recordHand", (what) => recorded.push(what));
  await page.addInitScript(() => {
    const tell = (what) => window.recordHand(what);
    addEventListener("pointerdown", () => tell("down"), true);
    addEventListener("pointerup", () => tell("up"), true);
    addEventListener("pointermove", (event) => event.buttons && tell("pull"), true);
    addEventListener("keydown", (event) => tell(`key ${event.key}`), true);
    addEventListener(
      "change",
      (event) => event.target instanceof HTMLSelectElement && tell("chosen"),
      true,
    );
  });
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill("coach@skerry.example");
  await page.getByLabel("Password").fill("skerry-coast-demo");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
  return { browser, page, recorded };
}

/** Clicked, emptied, typed. */
export async function typeInto(page, field, text) {
  await field.click();
  await page.keyboard.press("Control+a");
  await page.keyboard.type(text);
}

/** Operators of what was recorded. */
export function operators(all) {
  const count = { K: 0, P: 0, B: 0, H: 0, M: 0 };
  let hand = "mouse";
  let typing = false;
  let pulled = false;
  const go = (to) => {
    if (hand !== to) count.H++;
    hand = to;
  };
  for (const what of all) {
    if (what === "down" || what === "chosen") {
      go("mouse");
      count.M++;
      count.P += what === "chosen" ? 2 : 1;
      count.B += what === "chosen" ? 4 : 1;
      typing = false;
      pulled = false;
    } else if (what === "pull") pulled = true;
    else if (what === "up") {
      if (pulled) count.P++;
      count.B++;
    } else if (what.startsWith("key ")) {
      go("keys");
      // A thing that is typed is thought of once; so is each command by a key.
      // Enter that only ends what was typed is not thought of by itself (the model's fourth rule).
      const command = what.length > 5;
      if (command ? !(what === "key Enter" && typing) : !typing) count.M++;
      count.K++;
      typing = !command;
    }
  }
  const seconds = 0.28 * count.K + 1.1 * count.P + 0.1 * count.B + 0.4 * count.H + 1.35 * count.M;
  return { ...count, seconds: Math.round(10 * seconds) / 10 };
}
