/**
 * Two tasks of a coach by the keystroke-level model, counted as in `hand.mjs`: a room of six racks with
 * bands and boxes, one of them without its smallest pair and two with a 20 pair fewer; and who is stale
 * found, three new maxes put to use, five calls taken.
 *
 * `node scripts/with-database.mjs --serve node bench/keystrokes-workbench.mjs`; UI=before does the same
 * tasks on the pages that were there before (commit 3ad9b1f).
 */
import { handAtPage, operators, typeInto } from "./hand.mjs";

const before = process.env.UI === "before";
const { browser, page, recorded } = await handAtPage();
const settle = () => page.waitForTimeout(700);

async function describeRoom() {
  await page.goto("/gear");
  await settle();
  recorded.length = 0;
  await typeInto(
    page,
    page.getByRole("form", { name: "New room" }).getByLabel("Name"),
    "Six racks",
  );
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/gear\/[0-9a-f-]{36}/);
  await settle();
  const piece = page.getByRole("form", { name: "Piece of gear" });
  const add = async (kind, fields) => {
    if (kind) await page.getByRole("link", { name: `Add a ${kind}` }).click();
    await settle();
    for (const [label, text] of fields) {
      // A field that is focused already is typed into; the next is reached by pointing.
      const field = piece.getByLabel(label, { exact: true });
      if (await field.evaluate((one) => one === document.activeElement)) {
        await page.keyboard.press("Control+a");
        await page.keyboard.type(text);
      } else await typeInto(page, field, text);
    }
    await page.keyboard.press("Enter");
    await settle();
  };
  await add("", [["Name", "Bar"]]);
  await add("rack", [["Number", "1-6"]]);
  await add("band", [
    ["Name", "Narrow"],
    ["Pairs", "4"],
    ["Slack under, m", "0.55"],
    ["Hanging scale: length and pull", "0.7 4, 1.0 13, 1.3 20"],
  ]);
  await add("band", [
    ["Name", "Middle"],
    ["Pairs", "3"],
    ["Slack under, m", "0.55"],
    ["Hanging scale: length and pull", "0.6 3, 1.0 15, 1.4 28"],
  ]);
  await add("box", [
    ["Name", "Pin box"],
    ["How many", "6"],
  ]);
  await add("mat", [
    ["Name", "Mat"],
    ["How many", "6"],
    ["Thickness, cm", "1.2"],
  ]);
  const racks = [
    ["4", "1.25", "25x2 20x2 15 10x2 5x2 2.5x2"],
    ["5", "20", "25x2 20x1 15 10x2 5x2 2.5x2 1.25"],
    ["6", "20", "25x2 20x1 15 10x2 5x2 2.5x2 1.25"],
  ];
  for (const [rack, plate, plates] of racks) {
    if (before) {
      const table = page.getByRole("region", { name: "Racks", exact: true });
      await table.getByRole("link", { name: rack, exact: true }).click();
      await settle();
      await typeInto(page, piece.getByLabel("Plates, pairs"), plates);
      await page.keyboard.press("Enter");
    } else {
      const drawn = page.getByRole("region", { name: `Rack ${rack}, drawn` });
      await drawn
        .getByRole("button", { name: new RegExp(`^${plate.replace(".", "\\.")} kg, `) })
        .click();
    }
    await settle();
  }
  return operators(recorded);
}

/** Stale maxes found, a new one of each put to use, five calls taken. */
async function newMaxes() {
  await page.goto("/floor");
  await settle();
  recorded.length = 0;
  await page.getByRole("link", { name: "Athletes", exact: true }).click();
  await page.waitForURL(/\/athletes/);
  await settle();
  await page.getByLabel("Show").selectOption("stale");
  await settle();
  const stale = (await page.getByRole("rowheader").allTextContents()).slice(0, 3);
  for (const [i, name] of stale.entries()) {
    await page.getByRole("link", { name, exact: true }).click();
    await page.waitForURL(/\/athletes\/[0-9a-f-]{36}/);
    await settle();
    if (!before) {
      await page.getByRole("link", { name: "Add a record" }).click();
      await settle();
    }
    const form = page.getByRole("form", { name: "New record" });
    await typeInto(page, form.getByLabel(/^Load/), String(150 + i));
    if (before) {
      await page.keyboard.press("Enter");
      await settle();
      const again = form.getByRole("button", { name: "Keep it all the same" });
      if (await again.count()) await again.click();
      await settle();
      const row = page.getByRole("row").filter({ hasText: `${150 + i} kg` });
      await row.getByText("Use this").click();
      await row.getByRole("button", { name: "Use" }).click();
    } else {
      const use = form.getByRole("button", { name: "Keep it, and percentages stand on it" });
      await use.click();
      await settle();
      if (await form.getByRole("button", { name: "Keep it all the same" }).count())
        await use.click();
    }
    await settle();
    if (i < stale.length - 1) {
      // The browser's own way back, by key.
      await page.keyboard.press("Alt+ArrowLeft");
      await page.goBack().catch(() => {});
      if (!page.url().includes("show=stale")) await page.goto("/athletes?show=stale");
      await settle();
    }
  }
  await page.getByRole("link", { name: "Review", exact: true }).click();
  await page.waitForURL(/\/review/);
  await settle();
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press("t");
    await settle();
  }
  return operators(recorded);
}

for (const [name, task] of [
  ["a room of six racks described", describeRoom],
  ["stale maxes found, three new ones used, five calls taken", newMaxes],
]) {
  const found = await task();
  console.log(
    `${before ? "before" : "now"}: ${name}: ${found.seconds} s (K ${found.K}, P ${found.P}, B ${found.B}, H ${found.H}, M ${found.M})`,
  );
}
await browser.close();
process.exit(0);
