import { readFileSync } from "node:fs";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** A room described from nothing, in the interface, with every press and key counted. */
test.use({ storageState: stateFile("coach") });

/** Keystroke-level times (Card, Moran & Newell 1980), s: key, pointing with a click, thought. */
const KEY_S = 0.28;
const POINT_S = 1.1 + 0.2;
const THINK_S = 1.35;

class Hand {
  keys = 0;
  points = 0;
  thoughts = 0;
  constructor(readonly page: Page) {}
  /** A field: thought about, reached by Tab, typed. */
  async field(label: string, text: string) {
    await this.page
      .getByRole("form", { name: "Piece of gear" })
      .getByLabel(label, { exact: true })
      .fill(text);
    this.keys += text.length + 1;
    this.thoughts++;
  }
  async press(name: string | RegExp, role: "button" | "link" = "button") {
    await this.page.getByRole(role, { name, exact: typeof name === "string" }).click();
    this.points++;
    const kind = /^Add a (.+)$/.exec(String(name))?.[1];
    if (kind) await expect(this.page.getByRole("heading", { name: `New ${kind}` })).toBeVisible();
  }
  async add(what: string, fields: Record<string, string>, done: string) {
    for (const [label, text] of Object.entries(fields)) await this.field(label, text);
    await this.page.keyboard.press("Enter");
    this.keys++;
    const region = this.page.getByRole("region", { name: what });
    await expect(region.getByRole("row").filter({ hasText: done })).toHaveCount(1);
  }
  get seconds() {
    return KEY_S * this.keys + POINT_S * this.points + THINK_S * this.thoughts;
  }
}

test("a new room with four racks, bands, chains, boxes and mats takes under three minutes", async ({
  page,
}) => {
  await page.goto("/gear");
  const form = page.getByRole("form", { name: "New room" });
  await form.getByLabel("Name").fill("Hill gym");
  await form.getByRole("button", { name: "Make the room" }).click();
  await expect(page.getByRole("heading", { name: "Hill gym" })).toBeVisible();
  const hand = new Hand(page);
  hand.keys += 8;
  hand.points += 3;

  await hand.add("Bars", { Name: "Bar" }, "415 mm");
  await hand.press("Add a rack", "link");
  await hand.add("Racks", { Number: "1-4" }, "1, 2, 3, 4");
  await hand.press("Add a band", "link");
  await hand.add(
    "Bands",
    {
      Name: "Narrow",
      Pairs: "4",
      "Slack under, m": "0.55",
      "Hanging scale: length and pull": "0.7 4, 1.0 13, 1.3 20",
    },
    "Narrow",
  );
  await hand.press("Add a chain", "link");
  await hand.add(
    "Chains",
    { Name: "Chain", Pairs: "4", "Density, kg/m": "6", "Length, m": "1.5" },
    "1.5 m",
  );
  await hand.press("Add a box", "link");
  await hand.add("Boxes", { Name: "Box", "How many": "2" }, "30 35 40 45");
  await hand.press("Add a mat", "link");
  await hand.add("Mats", { Name: "Mat", "How many": "4", "Thickness, cm": "1.5" }, "1.5 cm");

  console.log(
    `a room described: ${hand.keys} keys, ${hand.points} presses, ${hand.thoughts} fields thought about: ${hand.seconds.toFixed(0)} s by keystroke-level times`,
  );
  expect(hand.seconds).toBeLessThan(180);

  // What the racks build is there at once, and the Lab knows the room.
  await expect(page.getByRole("region", { name: "Racks" })).toContainText(/\d+ totals, 20 kg to/);
  await page.goto("/lab?tool=box");
  await page.getByLabel("Boxes and mats of").selectOption({ label: "Hill gym" });
  await expect(page.getByText(/Box at \d+/).first()).toBeVisible();
});

test("bad gear is named where it is typed, with what is possible", async ({ page }) => {
  await page.goto("/gear");
  await page.getByRole("link", { name: "Boathouse" }).click();
  const piece = page.getByRole("form", { name: "Piece of gear" });
  await page.getByRole("link", { name: "Add a band" }).click();
  await piece.getByLabel("Slack under, m").fill("41");
  await expect(piece.getByText(/Was it 41 cm\? Then write 41 cm\./)).toBeVisible();
  await piece.getByLabel("Hanging scale: length and pull").fill("1.0 13");
  await expect(piece.getByText(/two lengths/)).toBeVisible();
  await piece.getByLabel("Hanging scale: length and pull").fill("1.0 13, 1.4 9");
  await expect(piece.getByText(/pulls harder the longer/)).toBeVisible();
  await page.getByRole("link", { name: "Add a rack" }).click();
  await piece.getByLabel("Plates, pairs").fill("2500x2");
  await expect(piece.getByText(/2500x2/).last()).toBeVisible();
  await piece.getByLabel("Plates, pairs").fill("25x2");
  await piece.getByLabel("Number").fill("1");
  await piece.getByRole("button", { name: "Add the rack" }).click();
  await expect(piece.getByText("Rack 1 is in this room already.")).toBeVisible();
});

test("a bar in use stays, a band that is nicked leaves and its log stays", async ({ page }) => {
  await page.goto("/gear");
  await page.getByRole("link", { name: "Boathouse" }).click();
  await page.getByRole("link", { name: "Straight bar", exact: true }).click();
  await page.getByRole("button", { name: "Put away" }).click();
  await expect(page.getByText(/Straight bar is the bar of rack 1, 2, 3, 4/)).toBeVisible();
  await page.getByRole("link", { name: "Narrow band" }).click();
  await page.getByLabel("Seen today").selectOption("nicked");
  await page.getByRole("button", { name: "Note the inspection" }).click();
  const away = page.getByRole("region", { name: "Put away" });
  await expect(away).toContainText("Narrow band");
  await away.getByRole("button", { name: "Bring back" }).click();
  await expect(away).toHaveCount(0);
});

test("a room goes out as JSON and as a table, and comes in again the same", async ({ page }) => {
  await page.goto("/gear");
  await page.getByRole("link", { name: "Dojo gym" }).click();
  for (const [link, name] of [
    ["Take out as JSON", "Dojo by JSON"],
    ["As a table", "Dojo by table"],
  ] as const) {
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: link }).click();
    const file = await (await download).path();
    const text = readFileSync(file, "utf8");
    expect(text).toContain("45lb");
    await page.getByRole("link", { name: "All rooms" }).click();
    const form = page.getByRole("form", { name: "Room from a file" });
    await form
      .getByLabel("Or its text")
      .fill(text.replace(/"name": "Dojo gym"/, `"name": "${name}"`));
    await form.getByLabel("Name", { exact: true }).fill(name);
    await form.getByRole("button", { name: "Make the room" }).click();
    await expect(page.getByRole("heading", { name })).toBeVisible();
    await expect(page.getByRole("region", { name: "Racks" })).toContainText("2 × 45 lb");
  }
  await page.goto("/gear");
  const form = page.getByRole("form", { name: "Room from a file" });
  await form.getByLabel("Or its text").fill("kind,name,count\nbarbell,Bar,1\n");
  await form.getByRole("button", { name: "Make the room" }).click();
  await expect(form.getByText(/Line 2: "barbell" is no kind of gear/)).toBeVisible();
  // A room that copies another has all of it.
  const make = page.getByRole("form", { name: "New room" });
  await make.getByLabel("Name").fill("Hotel");
  await make.getByLabel("Start with").selectOption({ label: "all gear of Boathouse" });
  await make.getByRole("button", { name: "Make the room" }).click();
  await expect(page.getByRole("region", { name: "Chains" })).toContainText("Harbour chain");
});

test("the room is drawn: a pair taken off by a tap is what the rack builds, by keys too, and back", async ({
  page,
}) => {
  await page.goto("/gear");
  await page.getByRole("link", { name: "Boathouse" }).click();
  const rack = page.getByRole("region", { name: "Rack 6, drawn" });
  const racks = page.getByRole("region", { name: "Racks", exact: true });
  const builds = async () =>
    Number.parseInt((await rack.getByText(/^\d+ totals$/).textContent()) ?? "", 10);
  const before = await builds();
  const peg = rack.getByRole("button", { name: /^1\.25 kg, 1 pair at rack 6/ });
  await peg.click();
  await expect(rack.getByText(/▲ steps of 5 kg.*one 1.25 kg pair more: 2.5/)).toBeVisible();
  expect(await builds()).toBeLessThan(before);
  // The table behind the drawing says the same, and so does the page loaded anew.
  await expect(racks).toContainText("0 × 1.25 kg");
  await page.reload();
  await expect(racks).toContainText("0 × 1.25 kg");

  const empty = rack.getByRole("button", { name: /^1\.25 kg, 0 pairs at rack 6/ });
  await empty.focus();
  // Faster than the server: the last one holds.
  await page.keyboard.press("+");
  await page.keyboard.press("+");
  await page.keyboard.press("+");
  await expect(rack.getByRole("button", { name: /^1\.25 kg, 3 pairs/ })).toBeVisible();
  await expect(racks).toContainText("3 × 1.25 kg");
  await page.keyboard.press("u");
  await page.keyboard.press("u");
  await expect(racks).toContainText("5, 6");
  // Pressed while answers come back: each press counts, whenever it falls.
  const one = rack.getByRole("button", { name: /^1\.25 kg, \d pairs? at rack 6/ });
  for (let round = 0; round < 12; round++) {
    await one.press("+");
    await page.waitForTimeout(20 + 9 * round);
    await page.keyboard.press("u");
    await expect(rack.getByRole("button", { name: /^1\.25 kg, 1 pair at/ })).toBeVisible();
  }
  await expect(racks).toContainText("5, 6");
  await expect(racks).not.toContainText("3 × 1.25 kg");
  await expect.poll(builds).toBe(before);

  // Shared plates: what is tapped off hangs there, what is hung comes from there, and no more.
  await page.getByRole("link", { name: "Add a tree of shared plates" }).click();
  const tree = page.getByRole("form", { name: "Piece of gear" });
  await expect(tree.getByRole("heading", { name: "New tree of shared plates" })).toBeVisible();
  await tree.getByLabel("Name", { exact: true }).fill("By the wall");
  await tree.getByLabel("Plates, pairs").fill("1.25x1");
  await tree.getByRole("button", { name: "Add the tree of shared plates" }).click();
  const shared = page.getByRole("region", { name: "By the wall, drawn" });
  await expect(shared).toContainText("1.25 kg ×1");
  // On another screen somebody has the last pair a moment before: it is said, and shown.
  const other = await page.context().newPage();
  await other.goto(page.url());
  await other
    .getByRole("region", { name: "Rack 5, drawn" })
    .getByRole("button", { name: /^1\.25 kg, 1 pair/ })
    .press("+");
  const there = other.getByRole("region", { name: "By the wall, drawn" });
  await expect(there).toContainText("1.25 kg ×0");
  await one.press("+");
  await expect(page.getByText(/^Not kept: By the wall has no more pairs/)).toBeVisible();
  await expect(one).toHaveAccessibleName(/^1\.25 kg, 1 pair at/);
  await expect(shared).toContainText("1.25 kg ×0");
  await other.keyboard.press("u");
  await expect(there).toContainText("1.25 kg ×1");
  await other.close();
  await page.reload();
  await one.press("+");
  await expect(shared).toContainText("1.25 kg ×0");
  await one.press("+");
  await expect(page.getByText("By the wall has no more pairs of 1.25 kg.")).toBeVisible();
  await expect(one).toHaveAccessibleName(/^1\.25 kg, 2 pairs at/);
  await page.keyboard.press("u");
  await expect(shared).toContainText("1.25 kg ×1");
  await expect(racks).toContainText("5, 6");
  await shared.getByRole("link", { name: "By the wall" }).click();
  await page.getByRole("button", { name: "Put away" }).click();
  await expect(shared).toHaveCount(0);

  // Every drawing says in words what it shows.
  const drawn = page.getByRole("region", { name: "The room, drawn" });
  await expect(
    drawn.getByRole("img", { name: /^Pull over length\. Middle band: 3 kg at 0\.6 m/ }),
  ).toBeVisible();
  await expect(
    drawn.getByRole("img", { name: /: .* make [\d.]+ cm, wanted/ }).first(),
  ).toBeVisible();

  // A rung pressed away and typed back; a reading added in its row.
  await rack.getByRole("link", { name: "6", exact: true }).click();
  const piece = page.getByRole("form", { name: "Piece of gear" });
  await piece.getByRole("button", { name: "Hook at 95 cm: take it off" }).click();
  await expect(piece.getByLabel("Hooks at, cm")).toHaveValue("90 100 105 110 130 140 150");
  await piece.getByRole("button", { name: "One pair of 25 kg more" }).click();
  await expect(piece.getByLabel("Plates, pairs")).toHaveValue(/25kgx3@45\/450 /);
  await piece.getByLabel("10 kg across, mm").fill("400");
  await piece.getByLabel("10 kg across, mm").blur();
  await expect(piece.getByLabel("Plates, pairs")).toHaveValue(/10kgx2@27\/400 /);
  await page.getByRole("link", { name: "Narrow band" }).click();
  await piece.getByLabel("Length of another reading, m").fill("1.1");
  await piece.getByLabel(/^Pull of another reading/).fill("10.6");
  await piece.getByRole("button", { name: "Add", exact: true }).click();
  await expect(piece.getByLabel("Hanging scale: length and pull")).toHaveValue(/1\.1 10\.6$/);
  await piece.getByRole("button", { name: "Keep the change" }).click();
  await expect(piece.getByText("Kept.")).toBeVisible();
  await expect(page.getByRole("region", { name: "Bands", exact: true })).toContainText("1.1 10.6");
});
