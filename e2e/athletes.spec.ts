import { openAthlete, openPart, openProfileTest } from "./athlete-part";
import { stateFile } from "./people";
import { expect, type Locator, test } from "./test";

/** What a prescription stands on: facts, limits, tests, profiles, in the hands of a coach. */
test.use({ storageState: stateFile("coach") });

test.describe("a profile test", () => {
  test.describe.configure({ mode: "serial" });

  test("with the simulated sensor, from the first load to the saved profile", async ({ page }) => {
    // The lifter lifts in real time.
    test.setTimeout(150_000);
    const id = await openProfileTest(page, "Joss Harrow", "Back squat, straight bar");
    await expect(page.getByTestId("test-load")).toHaveText("45 kg");
    await expect(page.getByText("No rep yet.")).toBeVisible();

    const loads = ["45 kg", "67.5 kg", "112.5 kg"];
    for (const [i, load] of loads.entries()) {
      await expect(page.getByTestId("test-load")).toHaveText(load);
      await page.getByRole("button", { name: /^Lift \d \(simulated sensor\)/ }).click();
      await expect(page.getByRole("button", { name: "Stop" })).toBeVisible();
      await expect(page.getByText(/^\d here, fastest/)).toBeVisible({ timeout: 20_000 });
      await expect(page.getByRole("button", { name: /^Lift/ })).toBeVisible({ timeout: 20_000 });
      if (i === 0) await expect(page.getByText("One load is a point, not a line.")).toBeVisible();
      if (i === 1) {
        await expect(page.getByText("Two loads give a line but no interval.")).toBeVisible();
      }
      await page.getByRole("button", { name: /^Next load/ }).click();
      if (i === 1) await page.getByRole("button", { name: /^Next load/ }).click();
    }
    // Measured with the body's share: force and power stand beside the line.
    await expect(
      page.getByText(/bar and 0\.88 of body mass|bar and [\d.]+ kg of the body/),
    ).toBeVisible();
    await expect(page.getByText(/not reached: at least \d+ N/)).toBeVisible();
    const max = page.getByText("1RM by velocity").locator("xpath=following-sibling::dd[1]");
    const before = Number((await max.textContent())?.match(/^([\d.]+)/)?.[1]);
    expect(Math.abs(before - 150)).toBeLessThan(15);
    await expect(max).toContainText("line only");
    await expect(max).toContainText("planning");

    // Above everything lifted so far it asks first.
    await page.getByLabel("Another load").fill("155");
    await expect(page.getByText(/First time at 155 kg: the best so far is 150 kg/)).toBeVisible();
    await expect(page.getByRole("button", { name: /^Lift/ })).toHaveCount(0);
    await page.getByRole("button", { name: "Asked: go on" }).click();
    await expect(page.getByRole("button", { name: /^Lift/ })).toBeVisible();

    // A page that is closed loses nothing.
    const reps = await page.getByRole("row").filter({ hasText: "simulated" }).count();
    await page.reload();
    await expect(page.getByText(`${reps} reps of an unfinished test are back.`)).toBeVisible();

    // A rep left out keeps its place, with the reason.
    await page
      .getByRole("button", { name: /^Leave out 45 kg/ })
      .first()
      .click();
    await page.getByLabel(/^Why leave out 45 kg/).fill("foot slipped");
    await page.keyboard.press("Enter");
    await expect(page.getByText("left out: foot slipped")).toBeVisible();

    await page.getByLabel("Note", { exact: true }).fill("Stopped before a first time");
    await page.getByRole("button", { name: "Keep for Joss Harrow" }).click();
    await page.waitForURL(new RegExp(`/athletes/${id}/profiles/[0-9a-f-]{36}$`));
    await expect(page.getByText("Stopped before a first time")).toBeVisible();
    await expect(page.getByText(/left out by Callum Reyk: foot slipped/)).toBeVisible();
    await expect(page.getByRole("row").filter({ hasText: "kg" })).not.toHaveCount(0);

    // Set against the test before, in words.
    await expect(page.getByLabel("The other test")).toBeVisible();
    await expect(
      page.getByText(/No shift beyond the test's error|Force|Speed|whole window/).first(),
    ).toBeVisible();

    await page.goto(`/lab/profile?athlete=${id}`);
    await expect(page.getByText("unfinished test")).toHaveCount(0);
  });

  test("typed, with faults named; a point is left out on the stored test", async ({ page }) => {
    const id = await openAthlete(page, "Wim Ostrova");
    await page.goto(`/lab/profile?athlete=${id}`);
    const speed = page.getByLabel(/^Speed of a rep/);
    const type = async (text: string) => {
      await speed.fill(text);
      await speed.press("Enter");
    };
    await type("fast");
    await expect(page.getByText("A speed from 0.05 to 4 m/s: 82 or 0.82.")).toBeVisible();
    const lines = [
      ["40", "50"],
      ["60", "95"],
      ["80", "62"],
      ["100", "35"],
    ];
    for (const [load, velocity] of lines) {
      await page.getByLabel("Another load").fill(load ?? "");
      await type(velocity ?? "");
    }
    await expect(page.getByText(/40 kg moved slower than 60 kg/)).toBeVisible();
    await page.getByRole("button", { name: "Keep for Wim Ostrova" }).click();
    await page.waitForURL(/\/profiles\/[0-9a-f-]{36}$/);
    await expect(page.getByText(/40 kg moved slower than 60 kg/)).toBeVisible();

    const row = page.getByRole("row").filter({ hasText: "40 kg" });
    await row.getByText("Leave out").first().click();
    await row.getByRole("button", { name: "Leave out" }).click();
    await expect(row.getByText("Leaving a rep out takes a reason")).toBeVisible();
    await row.getByLabel(/^Why leave out/).fill("warm-up effort");
    await row.getByRole("button", { name: "Leave out" }).click();
    await expect(row.getByText("left out by Callum Reyk: warm-up effort")).toBeVisible();
    await expect(page.getByText(/moved slower than/)).toHaveCount(0);
    await row.getByRole("button", { name: "Take in again" }).click();
    await expect(page.getByText(/40 kg moved slower than 60 kg/)).toBeVisible();

    // The very same test is not kept twice.
    await page.goto(`/lab/profile?athlete=${id}`);
    for (const [load, velocity] of lines) {
      await page.getByLabel("Another load").fill(load ?? "");
      await type(velocity ?? "");
    }
    await page.getByRole("button", { name: "Keep for Wim Ostrova" }).click();
    await expect(page.getByText("The very same test of this day is kept already.")).toBeVisible();
  });

  test("asks why where it is refused by default", async ({ page }) => {
    const id = await openAthlete(page, "Noor Halden");
    await page.goto(`/lab/profile?athlete=${id}`);
    await expect(page.getByText(/No testing: \d+ days after Harbour Open/)).toBeVisible();
    await page.getByLabel("Another load").fill("95 lb");
    await page.getByLabel(/^Speed of a rep/).fill("90");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Keep for Noor Halden" }).click();
    await expect(page.getByText("Testing is refused by default for this athlete.")).toBeVisible();
    await page.getByLabel("Why it was done although refused").fill("light check, agreed");
    await page.getByRole("button", { name: "Keep for Noor Halden" }).click();
    await page.waitForURL(/\/profiles\//);
    await expect(page.getByText("Done although refused: light check, agreed")).toBeVisible();
  });

  test("works without an athlete, and keeps nothing then", async ({ page }) => {
    await page.goto("/lab/profile");
    for (const [load, velocity] of [
      ["40", "1.21"],
      ["60", "0.99"],
      ["80", "0.78"],
      ["100", "0.55"],
      ["110", "0.46"],
    ]) {
      await page.getByLabel("Another load").fill(load ?? "");
      await page.getByLabel(/^Speed of a rep/).fill(velocity ?? "");
      await page.keyboard.press("Enter");
    }
    // The reference profile: L0 151.897 kg.
    await expect(page.getByRole("button", { name: /V0 1\.64 m\/s, L0 151\.9 kg/ })).toBeVisible();
    await expect(page.getByText("Choose an athlete to keep a test.")).toBeVisible();
    await expect(page.getByRole("button", { name: /^Keep for/ })).toHaveCount(0);
  });
});

test.describe("the squad table", () => {
  test("sorts, filters and is edited in place, all by the keyboard", async ({ page }) => {
    await page.goto("/athletes?squad=");
    const first = page.getByRole("rowheader").first();
    const header = page.getByRole("columnheader", { name: "Bench press" });
    await header.getByRole("button").focus();
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    const sorted = await header.getAttribute("aria-sort");
    expect(["ascending", "descending"]).toContain(sorted);
    const top = await first.textContent();
    await page.keyboard.press("Enter");
    await expect(first).not.toHaveText(top ?? "");

    await page.getByLabel("Find").fill("kayak");
    await expect(page.getByRole("rowheader")).toHaveCount(12);
    await page.getByLabel("Show").selectOption("a stale max, or none");
    await expect(page.getByRole("rowheader")).toHaveCount(1);
    await expect(page.getByRole("rowheader")).toHaveText("Ansel Quist");
    await page.getByLabel("Show").selectOption("everybody");
    await page.getByLabel("Find").fill("");

    const cell = page.getByRole("button", { name: /^Change body mass of Pia Morvan/ });
    await cell.focus();
    await page.keyboard.press("Enter");
    const field = page.getByRole("textbox", { name: "body mass of Pia Morvan" });
    await expect(field).toBeFocused();
    await page.keyboard.type("heavy");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("alert")).toContainText("That is not a load.");
    await page.getByRole("button", { name: /^Change body mass of Pia Morvan/ }).focus();
    await page.keyboard.press("Enter");
    await field.fill("66,4");
    await page.keyboard.press("Enter");
    await expect(
      page.getByRole("button", { name: "Change body mass of Pia Morvan, now 66.4" }),
    ).toBeVisible();
    await page.reload();
    await expect(
      page.getByRole("button", { name: "Change body mass of Pia Morvan, now 66.4" }),
    ).toBeVisible();
    await page.getByRole("button", { name: /^Change season phase of Pia Morvan/ }).click();
    await page.getByLabel("season phase of Pia Morvan").selectOption("Peak");
    await expect(
      page.getByRole("button", { name: "Change season phase of Pia Morvan, now Peak" }),
    ).toBeVisible();
    // Another value and back again, before the first answer is there: the last one holds.
    await page.route(
      (url) => url.pathname.startsWith("/athletes"),
      async (route) => {
        if (route.request().method() !== "POST") return route.continue();
        const answer = await route.fetch();
        await new Promise((later) => setTimeout(later, 700));
        // Broken off where a newer one went after it.
        await route.fulfill({ response: answer }).catch(() => undefined);
      },
    );
    for (const phase of ["pre-season", "peak"]) {
      await page.getByRole("button", { name: /^Change season phase of Pia Morvan/ }).click();
      await page.getByRole("combobox", { name: "season phase of Pia Morvan" }).selectOption(phase);
    }
    // What is typed in another cell while the answer comes stays there.
    await page.getByRole("button", { name: /^Change body mass of Pia Morvan/ }).click();
    const read = page.waitForResponse((one) => one.url().includes("/athletes.data"));
    await page.getByRole("textbox", { name: "body mass of Pia Morvan" }).pressSequentially("67");
    await page.unrouteAll({ behavior: "wait" });
    await read;
    await page.waitForTimeout(300);
    await page.keyboard.type(".5");
    await expect(page.getByRole("textbox", { name: "body mass of Pia Morvan" })).toHaveValue(
      "67.5",
    );
    await page.keyboard.press("Escape");
    await expect(
      page.getByRole("button", { name: "Change season phase of Pia Morvan, now Peak" }),
    ).toBeVisible();
    await page.reload();
    await expect(
      page.getByRole("button", { name: "Change season phase of Pia Morvan, now Peak" }),
    ).toBeVisible();
  });

  test("limits are read whole, columns and views are chosen, newer records come into use in one go", async ({
    page,
  }) => {
    await page.goto("/athletes");
    const cut = () =>
      page
        .locator("main table td")
        .evaluateAll((all) =>
          all.filter((one) => one.scrollWidth > one.clientWidth + 1).map((one) => one.textContent),
        );
    expect(await cut()).toEqual([]);
    const over = page.getByRole("region", { name: "Squads" });
    expect(await over.evaluate((one) => one.scrollWidth - one.clientWidth)).toBeLessThan(2);
    await expect(page.getByRole("row", { name: /Brita Lauder/ })).toContainText(/Squat|No test/);
    await expect(page.getByRole("columnheader", { name: "Born" })).toHaveCount(0);

    await page.getByText(/^Columns, /).click();
    await page.getByRole("checkbox", { name: "Born" }).check();
    await page.getByRole("checkbox", { name: "Phase" }).uncheck();
    await expect(page.getByRole("columnheader", { name: "Born" })).toBeVisible();
    await expect(page.getByRole("columnheader", { name: "Phase" })).toHaveCount(0);
    await page.getByText(/^Columns, /).click();
    await page.getByLabel("Show").selectOption("with a limit");
    await page.getByRole("button", { name: "Keep this view" }).click();
    await page.getByLabel("Name of this view").fill("Limits and ages");
    await page.keyboard.press("Enter");
    await page.goto("/athletes");
    await expect(page.getByRole("columnheader", { name: "Born" })).toHaveCount(0);
    await page.getByLabel("View, of this browser").selectOption("Limits and ages");
    await expect(page.getByRole("columnheader", { name: "Born" })).toBeVisible();
    await expect(page.getByLabel("Show")).toHaveValue("limited");

    // A newer record than percentages stand on: found by the filter, used for all who are marked.
    await page.goto("/athletes");
    await page.getByRole("link", { name: "Goran Tesk", exact: true }).click();
    await page.getByRole("link", { name: "Add a record" }).click();
    const form = page.getByRole("form", { name: "New record" });
    await form.getByLabel("Lift").selectOption("Back squat, straight bar");
    await form.getByLabel("Load").fill("182.5");
    await form.getByRole("button", { name: "Keep this record" }).click();
    await expect(form.getByText(/^Kept\./)).toBeVisible();
    await page.goto("/athletes?show=newer");
    await expect(page.getByRole("rowheader", { name: "Goran Tesk" })).toBeVisible();
    await page.getByRole("button", { name: "Change several" }).click();
    await page.getByLabel("Mark Goran Tesk").check();
    const newest = page.getByRole("form", { name: "Newest records" });
    await expect(newest).toContainText("Goran Tesk, Back squat: 182.5 kg, now 180 kg");
    await newest.getByRole("button", { name: "Percentages stand on these 1" }).click();
    await expect(newest).toContainText("Percentages stand on 1 newer records.");
    await page.goto("/athletes");
    await expect(
      page.getByRole("button", { name: /^Goran Tesk, Back squat.*182\.5 kg$/ }),
    ).toBeVisible();
  });

  test("a view that is kept has what was chosen a moment before, though the page is not there yet", async ({
    page,
  }) => {
    await page.goto("/athletes");
    // All in one breath: the address cannot follow in between.
    await page.getByLabel("Show").evaluate(async (show) => {
      const set = (field: Element, value: string, kind: string) => {
        const owner = field instanceof HTMLSelectElement ? HTMLSelectElement : HTMLInputElement;
        Object.getOwnPropertyDescriptor(owner.prototype, "value")?.set?.call(field, value);
        field.dispatchEvent(new Event(kind, { bubbles: true }));
      };
      const drawn = () => Promise.resolve().then(() => undefined);
      set(show, "limited", "change");
      await drawn();
      [...document.querySelectorAll("button")]
        .find((one) => one.textContent === "Keep this view")
        ?.click();
      await drawn();
      const name = document.querySelector('input[maxlength="40"]');
      if (!(name instanceof HTMLInputElement)) throw new Error("The view has no field for a name.");
      set(name, "At once", "input");
      await drawn();
      name.form?.requestSubmit();
    });
    await page.goto("/athletes");
    await page.getByLabel("View, of this browser").selectOption("At once");
    await expect(page.getByLabel("Show")).toHaveValue("limited");
  });

  test("a paste of thirty athletes is checked line by line and kept whole", async ({ page }) => {
    await page.goto("/athletes");
    for (const name of ["Orla Vint", "Per Skagen"]) {
      await page.getByText("Add an athlete").click();
      await page.getByLabel("Name", { exact: true }).fill(name);
      // A squad whose session runs already: nobody new joins it.
      const adding = page.locator("form").filter({ has: page.getByLabel("Birth year") });
      await adding.getByLabel("Squad").selectOption("Sprint kayak");
      await page.getByRole("button", { name: "Add", exact: true }).click();
      await expect(page.getByRole("link", { name, exact: true })).toBeVisible();
      await page.reload();
    }
    const names = await page.getByRole("rowheader").allInnerTexts();
    expect(names).toHaveLength(30);

    const header = "Athlete\tDeadlift\tVertical jump, arms free\tBody mass";
    const line = (name: string, i: number) =>
      `${name}\t${100 + 2.5 * i}\t${40 + i / 2} ${39 + i / 2}\t${60 + i},5`;
    const good = [header, ...names.map(line)];
    const bad = [...good];
    bad[3] = bad[3]?.replace(/\t[\d.]+\t/, "\theavy\t") ?? "";
    bad[7] = bad[7]?.replace(/^[^\t]+/, "Nobody Known") ?? "";
    bad[12] = bad[11] ?? "";

    await page.goto("/athletes/testing-day");
    const paste = page.getByLabel("The lines");
    await paste.fill(bad.join("\r\n"));
    await page.getByRole("button", { name: "Check the lines" }).click();
    await expect(page.getByText("3 to mend of 30 lines")).toBeVisible();
    await expect(page.getByText('Deadlift: "heavy" is no load.')).toBeVisible();
    await expect(page.getByText('No athlete "Nobody Known" in this team.')).toBeVisible();
    await expect(page.getByText(/stands on line 12 already/)).toBeVisible();
    await expect(page.getByRole("button", { name: /^Keep all/ })).toHaveCount(0);

    await paste.fill(good.join("\r\n"));
    await page.getByRole("button", { name: "Check the lines" }).click();
    await page.getByRole("button", { name: "Keep all 90 values" }).click();
    await expect(page.getByText("Kept: 90 values of 30 athletes.")).toBeVisible();

    // Pasted again the records would stand twice and the jumps collide: nothing is kept.
    await paste.fill(good.join("\n"));
    await page.getByRole("button", { name: "Check the lines" }).click();
    await page.getByRole("button", { name: "Keep all 90 values" }).click();
    await expect(page.getByText(/is there already\. Nothing was kept\./)).toBeVisible();

    await openAthlete(page, "Per Skagen");
    await openPart(page, "Deadlift, straight bar");
    const lift = page.getByRole("region", { name: "Deadlift, straight bar" });
    await expect(lift.getByRole("row")).toHaveCount(2);
  });
});

test.describe("limits", () => {
  test.describe.configure({ mode: "serial" });

  test("the instruction shows, the reason only on asking, and the asking is recorded", async ({
    page,
    browser,
    baseURL,
  }) => {
    await openAthlete(page, "Maren Solhaug");
    await openPart(page, "Limits and readiness");
    await page.getByText("Set a limit").click();
    const form = page.getByRole("form", { name: "New limit" });
    await form.getByRole("button", { name: "Set this limit" }).click();
    await expect(form.getByText("Write what cards and racks should show.")).toBeVisible();
    await form.getByLabel(/^Instruction/).fill("Bench at most 70 %");
    await form.getByLabel("Lift", { exact: true }).selectOption("Bench press");
    await form.getByLabel("Max tests").check();
    await form.getByLabel("At most, % of the max").fill("70");
    await form.getByLabel(/^Reason/).selectOption("Injury");
    await form.getByLabel("In words").fill("Left shoulder after the regatta");
    await form.getByRole("button", { name: "Set this limit" }).click();
    const limits = page.getByRole("region", { name: "Limits" });
    await expect(limits.getByText("Bench at most 70 %")).toBeVisible();
    await expect(page.getByText("Left shoulder")).toHaveCount(0);
    await page.getByRole("button", { name: "Show the reasons (recorded)" }).click();
    await expect(limits.getByText("Left shoulder after the regatta")).toBeVisible();

    // An assistant sees the instruction, and neither the reason nor sleep nor the birth year.
    const other = await browser.newContext({ baseURL, storageState: stateFile("assistant") });
    const theirs = await other.newPage();
    await theirs.goto(page.url());
    await expect(theirs.getByRole("region", { name: "Limits" })).toContainText(
      "Bench at most 70 %",
    );
    const body = await theirs.content();
    for (const secret of ["Left shoulder", "Show the reasons", "Soreness", "soreness", "Injury"]) {
      expect(body).not.toContain(secret);
    }
    const raw = await (await other.request.get(`${new URL(page.url()).pathname}.data`)).text();
    for (const secret of ["Left shoulder", "sleepH", '"birthYear",2001']) {
      expect(raw).not.toContain(secret);
    }
    await other.close();

    // The athlete reads the own reason on the card, and the profile test asks why.
    const own = await browser.newContext({ baseURL, storageState: stateFile("maren") });
    const card = await own.newPage();
    await card.goto("/card");
    await expect(card.getByText("Bench at most 70 %")).toBeVisible();
    await expect(card.getByText("Left shoulder")).toHaveCount(0);
    await card.getByRole("button", { name: "Why?" }).click();
    await expect(card.getByText(/Left shoulder after the regatta/)).toBeVisible();
    await own.close();

    await limits.getByRole("button", { name: "Lift this limit" }).click();
    await expect(limits.getByText("No limit holds today.")).toBeVisible();
    await expect(limits.getByText(/Bench at most 70 % \(lifted .* by Callum Reyk\)/)).toBeVisible();
  });
});

test("facts, set-up, a day's notes and a confirmed single", async ({ page }) => {
  await openAthlete(page, "Roza Timm");
  await openPart(page, "Facts and competitions");
  await page.getByText("Change the facts").click();
  const facts = page.getByRole("form", { name: "Facts" });
  await facts.getByLabel("Birth year").fill("next year");
  await facts.getByRole("button", { name: "Keep the facts" }).click();
  await expect(facts.getByText("A year, for example 2001.")).toBeVisible();
  await facts.getByLabel("Birth year").fill("2002");
  await facts.getByLabel("Goal").selectOption("Competition lifting");
  await facts.getByLabel("Stature, cm").fill("171,5");
  await facts.getByRole("button", { name: "Keep the facts" }).click();
  const region = page.getByRole("region", { name: "Facts" });
  await expect(region).toContainText("Competition lifting");
  await expect(region).toContainText("171.5 cm");

  await openPart(page, "Bench press, straight bar");
  const bench = page.getByRole("region", { name: "Bench press, straight bar" });
  await bench.getByText("Change the set-up").click();
  await bench.getByLabel("Hooks").fill("7");
  await bench.getByLabel("Start height, cm").fill("tall");
  await bench.getByRole("button", { name: "Keep the set-up" }).click();
  await expect(bench.getByText("A height between 0 and 250 cm.")).toBeVisible();
  await bench.getByLabel("Start height, cm").fill("38");
  await bench.getByRole("button", { name: "Keep the set-up" }).click();
  await expect(bench.getByText(/hooks 7 · .*start 38 cm/)).toBeVisible();

  await expect(bench.getByText("group mean")).toBeVisible();
  await bench.getByText("Confirm a maximal single").click();
  await bench.getByLabel("Load, kg", { exact: true }).fill("80");
  await bench.getByLabel("MCV, m/s").fill("7");
  await bench.getByRole("button", { name: "Confirm as maximal" }).click();
  await expect(bench.getByText(/up to 5 m\/s, for example 0.42/)).toBeVisible();
  await bench.getByLabel("MCV, m/s").fill("0,13");
  await bench.getByRole("button", { name: "Confirm as maximal" }).click();
  await expect(bench.getByText("default 0.17, own 0.13 from 1")).toBeVisible();
  await bench.getByRole("button", { name: "0.15 m/s" }).click();
  await expect(page.getByRole("region", { name: "Working" })).toContainText("Own maximal single");

  await openPart(page, "Limits and readiness");
  await page.getByText(/^Sleep, eating, soreness/).click();
  await page.getByLabel("Sleep, h").fill("7.5");
  await page.getByLabel("Eating, 1–5").fill("9");
  await page.getByRole("region", { name: "Limits" }).getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("1 poor to 5 good, a whole number.")).toBeVisible();
  await page.getByLabel("Eating, 1–5").fill("4");
  await page.getByRole("region", { name: "Limits" }).getByRole("button", { name: "Keep" }).click();
  await expect(
    page.getByRole("region", { name: "Limits" }).getByRole("row").filter({ hasText: "7.5" }),
  ).toBeVisible();
});

test("today's form: a call only beyond noise and a step, taken with its figures", async ({
  page,
}) => {
  await openAthlete(page, "Emeka Strand");
  await openPart(page, "Bench press, straight bar");
  const bench = page.getByRole("region", { name: "Bench press, straight bar" });
  const window = await bench.getByRole("button", { name: /^V0/ }).textContent();
  const [v0, l0] = [...(window ?? "").matchAll(/[\d.]+(?= m\/s| kg)/g)].map((one) =>
    Number(one[0]),
  );
  const speedAt = (kg: number, shift: number) =>
    ((v0 ?? 0) * (1 - kg / (l0 ?? 1)) + shift).toFixed(2);
  await bench.getByText("Today's form, from warm-up speeds").click();
  await bench.getByLabel("Wanted speed, m/s").fill("0.70");
  const fill = async (shift: number) => {
    for (const [i, kg] of [50, 70, 85].entries()) {
      await bench.getByLabel(`Load ${i + 1}`).fill(String(kg));
      await bench
        .getByLabel(/^Its reps in order/)
        .nth(i)
        // Two reps at each load, the second a little slower.
        .fill(`${speedAt(kg, shift)} ${speedAt(kg, shift - 0.01)}`);
    }
  };
  await fill(0);
  await expect(bench.getByText(/^No call:/)).toBeVisible();
  await fill(-0.12);
  await expect(bench.getByText(/^Lower [\d.]+ kg to [\d.]+ kg/)).toBeVisible();
  await bench.getByRole("button", { name: "Decline …" }).click();
  await bench.getByRole("button", { name: "Decline", exact: true }).click();
  await expect(bench.getByText("Declining takes a reason")).toBeVisible();
  await bench.getByLabel("Reason").fill("Looked fresh");
  await bench.getByRole("button", { name: "Decline", exact: true }).click();
  await expect(bench.getByText("Decision kept.")).toBeVisible();
  await expect(bench.getByRole("button", { name: /^Working max 142.5/ })).toBeVisible();
  await openPart(page, "History");
  await expect(page.getByText(/decided \(decline: Looked fresh\), Callum Reyk/)).toBeVisible();
});

test("a jump entered twice is one; its change is judged with chances", async ({ page }) => {
  await openAthlete(page, "Runa Fjell");
  await openPart(page, "Tests");
  const tests = page.getByRole("region", { name: "Tests" });
  const enter = async (trials: string) => {
    await tests
      .getByLabel("Test", { exact: true })
      .selectOption("Vertical jump, hands on hips, cm");
    await tests.getByLabel(/^Trials in cm/).fill(trials);
    await tests.getByRole("button", { name: "Keep the result" }).click();
  };
  await tests.getByText("Enter a test").click();
  await enter("41.2 high");
  await expect(tests.getByText('"high" is not a number.')).toBeVisible();
  await enter("61.2 60,8 61");
  const row = tests.getByRole("row").filter({ hasText: "Vertical jump, hands on hips" });
  await expect(row).toContainText("61.2 cm");
  await expect(row).toContainText("▲ better");
  await row.getByRole("button", { name: /^Change/ }).click();
  await expect(page.getByRole("region", { name: "Working" })).toContainText("Typical error");
  await tests.getByText("Enter a test").click();
  await enter("70");
  await expect(tests.getByText(/is there already\. Nothing was changed\./)).toBeVisible();
});

test("a rep maximum by five formulas is kept as an estimate", async ({ page }) => {
  await openAthlete(page, "Wim Ostrova");
  await page.getByRole("link", { name: "Add a record" }).click();
  const form = page.getByRole("form", { name: "Max from a set" });
  await form.getByLabel("Lift").selectOption("Deadlift, straight bar");
  await form.getByLabel("Set's load").fill("100");
  await expect(form.getByText("116.7 kg").first()).toBeVisible();
  await form.getByLabel("Reps done").fill("20");
  await expect(form.getByText("Over 15 reps with reserve no formula holds.")).toBeVisible();
  await form.getByLabel("Reps done").fill("5");
  await form.getByRole("button", { name: "116.7 kg" }).click();
  const working = page.getByRole("region", { name: "Working" });
  for (const figure of ["116.67 kg", "112.5 kg", "117.46 kg", "119.01 kg", "116.58 kg"]) {
    await expect(working).toContainText(figure);
  }
  await form.getByRole("button", { name: "Keep as an estimate" }).click();
  await openPart(page, "Deadlift, straight bar");
  await expect(
    page.getByRole("row").filter({ hasText: "median of five formulas" }).first(),
  ).toContainText("Rep-max estimate");
});

test("at a glance: what the card asks, what the table says, a call taken by key and back", async ({
  page,
  browser,
  baseURL,
}) => {
  await openAthlete(page, "Maren Solhaug");
  const next = page.getByRole("region", { name: /^Today|^\d/ });
  const loads = async (within: Locator) =>
    (await within.getByRole("button", { name: /, [\d.]+ kg$/ }).allTextContents()).map(
      (text) => text.match(/[\d.]+/)?.[0],
    );
  const here = await loads(next);
  expect(here.length).toBeGreaterThan(0);
  const own = await browser.newContext({ baseURL, storageState: stateFile("maren") });
  const card = await own.newPage();
  await card.goto("/card");
  await expect(card.getByRole("heading", { level: 1, name: "Maren Solhaug" })).toBeVisible();
  const there = new Set(await loads(card.locator("main")));
  for (const load of here) expect(there).toContain(load);
  await own.close();

  // A figure opens to its working, a drawing says in words what it shows.
  await page
    .getByRole("button", { name: /^Speed on the last day/ })
    .first()
    .click();
  await expect(page.getByRole("region", { name: "Working", exact: true })).toContainText(
    "Chance that it rises",
  );
  await expect(page.getByRole("img", { name: /^Speed of .* m\/s\. / }).first()).toBeVisible();

  // The next of the squad, with the same part open.
  await openPart(page, "Tests");
  await page.keyboard.press("]");
  await expect(page.getByRole("heading", { level: 1 })).not.toHaveText("Maren Solhaug");
  await expect(page.getByRole("region", { name: "Tests" }).getByText("Enter a test")).toBeVisible();
  await page.keyboard.press("[");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Maren Solhaug");

  const name = "Emeka Strand";
  await page.goto("/athletes");
  const max = page.getByRole("button", { name: new RegExp(`^${name}, Bench press`) });
  const before = ((await max.textContent()) ?? "").trim();
  await openAthlete(page, name);
  const bench = page.getByRole("button", { name: /^Working max .*Bench press, straight bar$/ });
  await expect(bench).toHaveAttribute("aria-label", new RegExp(`^Working max ${before}`));
  await page.keyboard.press("t");
  await expect(page.getByText(/Raise the base, taken at/)).toBeVisible();
  await expect(bench).not.toHaveAttribute("aria-label", new RegExp(`^Working max ${before}`));
  await page.keyboard.press("u");
  await expect(page.getByText(/Raise the base, taken at/)).toHaveCount(0);
  await expect(bench).toHaveAttribute("aria-label", new RegExp(`^Working max ${before}`));
});

test("the squad's profiles: scatter, table, and who is untested", async ({ page }) => {
  await page.goto("/athletes/profiles");
  await expect(page.getByRole("img", { name: /V0 against L0/ }).locator("svg")).toBeVisible();
  await page.getByLabel("Lift").selectOption({ label: "Back squat, straight bar (6 tests)" });
  await expect(page.getByText(/25 untested|23 untested/)).toBeVisible();
  await expect(page.getByRole("row").filter({ hasText: "untested" }).first()).toBeVisible();
  await page.getByLabel("Squad", { exact: true }).selectOption("Sprint kayak");
  await expect(page.getByText(/^5 tested/)).toBeVisible();
});

test("a chart comes drawn; its library is loaded when somebody points at it, and its colours follow the theme", async ({
  page,
}) => {
  const scripts: string[] = [];
  page.on("response", (answer) => {
    if (answer.url().endsWith(".js")) scripts.push(answer.url());
  });
  await page.goto("/athletes/profiles");
  const chart = page.getByRole("img", { name: /^V0 against L0/ });
  await expect(chart.locator("svg")).toBeVisible();
  const drawn = await chart.locator("svg path").count();
  expect(drawn).toBeGreaterThan(10);
  // Every colour is named as the theme names it: none is fixed on the server.
  const colours = await chart
    .locator("svg [fill], svg [stroke]")
    .evaluateAll((all) =>
      all.flatMap((one) => [one.getAttribute("fill"), one.getAttribute("stroke")]),
    );
  const named = colours.filter((one) => one !== null && !["none", "transparent"].includes(one));
  expect(named.length).toBeGreaterThan(10);
  expect(named.filter((one) => !one?.startsWith("var("))).toEqual([]);
  await page.waitForTimeout(4500);
  const atRest = scripts.length;

  await chart.hover();
  await expect.poll(() => scripts.length).toBeGreaterThan(atRest);
  const library = scripts.at(-1) ?? "";
  expect((await (await page.request.get(library)).text()).length).toBeGreaterThan(300_000);
  await expect(chart.locator("svg")).toBeVisible();
  await expect.poll(() => chart.locator("svg path").count()).toBe(drawn);
});
