import { lookAt } from "./axe";
import { stateFile } from "./people";
import { expect, test } from "./test";

/** Each tool of the bench from a pasted address, its working, and what it says to bad input. */
test.use({ storageState: stateFile("coach") });

const TOOLS: Array<{
  address: string;
  answer: string | RegExp;
  working: string;
  field: string;
  bad: string;
  says: string | RegExp;
}> = [
  {
    address: "/lab?max=142.5&load=97.5",
    answer: "97.5 kg",
    working: "97.5 kg",
    field: "One load",
    bad: "900",
    says: /asked/,
  },
  {
    address: "/lab?tool=sequence&loads=60+100+60",
    answer: /^\d+ moves$/,
    working: "Planned together",
    field: "Loads in order, blanks between",
    bad: "60 heavy",
    says: '"heavy" is not a load.',
  },
  {
    address: "/lab?tool=max&load=100&reps=5",
    answer: "116.7 kg",
    working: "Wathan",
    field: "Reps done",
    bad: "20",
    says: "Over 15 reps with reserve no formula holds.",
  },
  {
    address: "/lab?tool=speed&speed=0.3&load=80",
    answer: "124.1 kg",
    working: "L0 = V0 ÷ slope",
    field: "Load and speed of each point, in pairs",
    bad: "40 1.2 80",
    says: "The last load has no speed.",
  },
  {
    address: "/lab?tool=resistance",
    answer: "7.8 → 14.4 kg, mean 11.1",
    working: "Mean over the range",
    field: "Bar at lockout, m",
    bad: "0.2",
    says: "Lockout lies above the bottom",
  },
  {
    address: "/lab?tool=box&seat=40&crease=2&group=38+40+38",
    answer: "38 cm",
    working: "Crease over the knee",
    field: "Mats in the room, cm each",
    bad: "thin",
    says: '"thin" is not a height.',
  },
  {
    address: "/lab?tool=methods&max=120&percent=62.5&speed=0.3&force=0.7&reps=3&reserve=2",
    answer: "75 kg",
    working: "62.5 % of it",
    field: "Load and speed of each point, in pairs",
    bad: "40 fast",
    says: '"fast" is not a number.',
  },
  {
    address: "/lab?tool=time&range=60&speed=0.5",
    answer: "1.2 s up",
    working: "0.6 ÷ 0.5 = 1.2 s",
    field: "Reps",
    bad: "2.5",
    says: "whole reps",
  },
  {
    address: "/lab?tool=photo&marks=300+300+480+280&thigh=43&seat=40",
    answer: /^35\.\d cm$/,
    working: "Thigh × sin(angle)",
    field: "Thigh, knee to crease, cm",
    bad: "long",
    says: "A length, for example 40 or 16 in.",
  },
  {
    address: "/lab?tool=rest&n=4",
    answer: "1:04",
    working: "4 (8 + 10) − 8",
    field: "Lifters on the bar",
    bad: "0",
    says: "One to thirty lifters",
  },
  {
    address: "/lab?tool=restspeed&at=120",
    answer: /^\+0\.0\d m\/s$/,
    working: "Pairs of sets at one load",
    field: "Rest, s, and change of speed from set to set, m/s, in pairs",
    bad: "60 fast",
    says: '"fast" is not a number.',
  },
  {
    address: "/lab?tool=width&loads=40+60+80+95+105&max=120&v0=1.6&threshold=0.3",
    answer: /^± \d\.\d kg$/,
    working: "As the test itself will say it",
    field: "Speed at no load, m/s",
    bad: "0.1",
    says: /a speed at no load over the threshold/,
  },
  {
    address: "/lab?tool=jumps&jumps=0+44+20+36+40+28&at=30",
    answer: "32 cm",
    working: "0.4 cm lost for each kilogram",
    field: "Load, kg, and height, cm, of each jump, in pairs",
    bad: "0 44 20",
    says: "The last is not whole: a load and a height.",
  },
  {
    address: "/lab?tool=force",
    answer: "61 %",
    working: "Light and fast",
    field: "Light rep: kg, N, W, m/s",
    bad: "60 0 690 0.9",
    says: /all over 0/,
  },
  {
    address: "/lab?tool=share&total=80&share=25",
    answer: "20 kg",
    working: "Left for bar and plates",
    field: "Share, %",
    bad: "120",
    says: "A share over 0 and under 100 %.",
  },
  {
    address: "/lab?tool=complex",
    answer: "15:20",
    working: "With the rest after the last",
    field: "Rounds",
    bad: "1.5",
    says: /Whole reps and rounds/,
  },
  {
    address: "/lab?tool=tonnage",
    answer: "1080 kg",
    working: "3 × 12 = 36",
    field: "Reps",
    bad: "many",
    says: "A number is needed.",
  },
];

for (const tool of TOOLS) {
  test(`${tool.address} answers, by keyboard too, and names bad input`, async ({ page }) => {
    await page.goto(tool.address);
    const answers = page.getByRole("region", { name: "Answers" });
    const figure = answers.getByRole("button", { name: tool.answer, exact: true }).first();
    await expect(figure).toBeVisible();
    await figure.focus();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("region", { name: "Working" })).toContainText(tool.working);
    const found = await lookAt(page).analyze();
    expect(found.violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
    const field = page.getByLabel(tool.field, { exact: true });
    await field.focus();
    await page.keyboard.press("Control+a");
    await page.keyboard.type(tool.bad);
    await expect(page.getByText(tool.says).first()).toBeVisible();
    // The address keeps what was typed, once the last key has reached it.
    await expect.poll(() => [...new URL(page.url()).searchParams.values()]).toContain(tool.bad);
    await page.reload();
    await expect(page.getByLabel(tool.field, { exact: true })).toHaveValue(tool.bad);
  });
}

test("a page says how it is worked, in a minute, with a drawing, by keyboard", async ({ page }) => {
  await page.goto("/lab");
  await page.getByRole("button", { name: "How this page is worked" }).focus();
  await page.keyboard.press("Enter");
  const guide = page.getByRole("dialog", { name: "The Lab" });
  await expect(guide.getByRole("listitem")).toHaveCount(3);
  await expect(guide.locator("figure svg")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(guide).toHaveCount(0);
});

test("a box goes down by mats, week by week, of what the room has", async ({ page }) => {
  await page.goto("/lab?tool=lowering&from=39.7&to=37.2&weeks=3&within=1");
  const rows = page.getByRole("row").filter({ hasText: /Pin box|Low box|Flat bench/ });
  await expect(rows).toHaveCount(3);
  await expect(rows.first()).toContainText("39.7");
  await page.getByLabel("Weeks", { exact: true }).fill("1");
  await expect(page.getByText(/two to twenty-six whole weeks/)).toBeVisible();
});

test("bands need two readings, and an anchor that holds", async ({ page }) => {
  await page.goto("/lab?tool=resistance&kind=band");
  await expect(
    page.getByText(/Refused\. The bands pull .* no anchor weight is stated/),
  ).toBeVisible();
  const anchor = page.getByLabel("Anchor holds, a side");
  await anchor.fill("20");
  await expect(page.getByText(/the anchor weighs 20 kg\. It would lift/)).toBeVisible();
  await anchor.fill("80");
  await expect(page.getByText(/Refused/)).toHaveCount(0);
  const readings = page.getByLabel(/^Length \(m\) and tension/);
  await readings.fill("1.0 13");
  await expect(page.getByText(/Hang the band from a scale at two lengths/)).toBeVisible();
  await readings.fill("1.0 13 41 20");
  await expect(page.getByText(/was it measured in centimetres or feet/)).toBeVisible();
  await readings.fill("1.0 13 1.4 9");
  await expect(page.getByText(/a band pulls harder the longer it is/)).toBeVisible();
});

test("a mass or a length may be written in either unit, and the address says the same to everybody", async ({
  page,
}) => {
  await page.goto("/lab?tool=max&load=225+lb&reps=5");
  const figure = page.getByRole("region", { name: "Answers" }).getByRole("button").first();
  await expect(figure).toHaveText("119.1 kg");
  await page.goto("/lab?tool=resistance&lockout=140+cm&bottom=85+cm");
  await expect(page.getByText("7.8 → 14.4 kg, mean 11.1")).toBeVisible();
  // Somebody who reads pounds types bare numbers in pounds.
  await page.getByRole("button", { name: /^Menu of/ }).click();
  await page.getByRole("button", { name: "Read loads in pounds" }).click();
  await expect(page.getByText("60 % of 330.69 lb")).toBeVisible();
  await page.getByLabel("Working max", { exact: true }).fill("300");
  await expect.poll(() => new URL(page.url()).searchParams.get("max")).toBe("300 lb");
  await expect(page.getByText("60 % of 300 lb")).toBeVisible();
  await page.getByRole("button", { name: /^Menu of/ }).click();
  await page.getByRole("button", { name: "Read loads in kilograms" }).click();
  await expect(page.getByLabel("Working max", { exact: true })).toHaveValue("300 lb");
});

test("a tool is filled from an athlete without naming them, and its answer is sent to them", async ({
  page,
}) => {
  await page.goto("/lab?tool=methods");
  const fill = page.getByRole("region", { name: "Fill from an athlete" });
  await fill.getByLabel("Athlete").selectOption({ label: "Ansel Quist" });
  await fill.getByLabel("Lift").selectOption({ label: "Back squat, straight bar" });
  await fill.getByRole("button", { name: "Fill the fields" }).click();
  await expect(page.getByText(/Filled: profile of 2026/)).toBeVisible();
  await expect(page.getByLabel("Working max", { exact: true })).not.toHaveValue("120");
  // Filled once more with the same: the fields start anew then, and not when one types next.
  const max = page.getByLabel("Working max", { exact: true });
  await max.evaluate((field) => field.setAttribute("data-before", ""));
  await fill.getByRole("button", { name: "Fill the fields" }).click();
  await expect(max).not.toHaveAttribute("data-before");
  await max.fill("");
  await max.pressSequentially("212.5");
  await expect(max).toHaveValue("212.5");
  await expect(max).toBeFocused();
  await expect(page).toHaveURL(/max=212\.5/);
  const address = page.url();
  expect(decodeURIComponent(address)).not.toMatch(/Ansel|[0-9a-f]{8}-[0-9a-f]{4}-/);
  const send = page.getByRole("form", { name: "Send the answer" });
  await send.getByLabel("To").selectOption({ label: "Ansel Quist" });
  await send.getByRole("button", { name: "Send" }).click();
  await expect(send.getByText("Sent to Ansel Quist.")).toBeVisible();
  await page.goto("/athletes");
  await page.getByRole("link", { name: "Ansel Quist" }).click();
  const sent = page.getByRole("region", { name: "From the Lab" });
  await sent.getByRole("link").first().click();
  await expect(page.getByLabel("Working max", { exact: true })).not.toHaveValue("120");
  await page.goBack();
  await sent.getByRole("button", { name: "Take away" }).first().click();
  await expect(sent).toHaveCount(0);
});

test("the room's own bands and chains: proposals, a retired band left out, a rig sheet", async ({
  page,
}) => {
  await page.goto("/lab?tool=resistance");
  const from = page.getByLabel("Bands and chains of");
  await from.selectOption({ label: "Boathouse, rack 1: Straight bar" });
  await expect(page.getByText(/Wide band: not measured with a hanging scale/)).toBeVisible();
  await page.getByLabel("Share of the lockout load, %").fill("17");
  await page.getByRole("button", { name: "Take 1 × Harbour chain", exact: true }).click();
  const sheet = page.getByRole("region", { name: /^Rig sheet: Boathouse, rack 1/ });
  await expect(sheet.getByRole("row").filter({ hasText: "Harbour chain" })).toContainText("2");
  await page.getByRole("button", { name: "3 Middle band a side" }).click();
  await expect(sheet.getByText("Pull on each anchor")).toBeVisible();
  await page.getByLabel("Anchor holds, a side").fill("10");
  await expect(page.getByText(/Refused\. The bands pull/)).toBeVisible();
  await expect(sheet.getByText("Not to be rigged")).toBeVisible();
  await from.selectOption({ label: "Dojo gym, rack 1: Straight bar, pounds" });
  await expect(page.getByText("Red-tagged band: retired on 2026-02-15")).toBeVisible();
});

test("the room's boxes: a stand-in carries its caution, turns are ordered for fewest moves", async ({
  page,
}) => {
  await page.goto("/lab?tool=box&group=38+41+38+41");
  await page.getByLabel("Boxes and mats of").selectOption({ label: "Boathouse" });
  await expect(
    page.getByText(/Turns changed: as written it would be 4 moves|0 mats moved/),
  ).toBeVisible();
  await page.getByLabel("Trial seat, cm").fill("47");
  await page.getByLabel("Too high by at most, cm").fill("0");
  await expect(
    page.getByText(/stands in for a box|Nothing in this room fits|Pin box/).first(),
  ).toBeVisible();
});

test("a long rotation is worked out in the worker", async ({ page }) => {
  await page.goto("/lab?tool=sequence&loads=60+80+100+70&rounds=12");
  const answers = page.getByRole("region", { name: "Answers" });
  await expect(answers.getByRole("row")).toHaveCount(49);
  await page.getByLabel("Rounds").fill("0");
  await expect(page.getByText("A whole number from 1.")).toBeVisible();
});

test("the side photo is marked by mouse and keyboard and never leaves the browser", async ({
  page,
}) => {
  const sent: string[] = [];
  page.on("request", (request) => {
    if (request.method() !== "GET") sent.push(request.url());
  });
  await page.goto("/lab?tool=photo");
  const picture = page.getByText("The photo with its marks").locator("..");
  await page
    .getByLabel("Photo, read here and never sent")
    .setInputFiles("docs/screenshots/lab.png");
  await expect(page.locator("svg image")).toHaveCount(1);
  await picture.click({ position: { x: 200, y: 200 } });
  await expect(page.getByText("Mark: hip crease")).toBeVisible();
  await picture.click({ position: { x: 340, y: 190 } });
  const answers = page.getByRole("region", { name: "Answers" });
  const before = await answers.getByRole("button").textContent();
  const knee = page.getByRole("button", { name: /^knee, top at/ });
  await knee.focus();
  await page.keyboard.press("Shift+ArrowUp");
  await page.keyboard.press("Shift+ArrowUp");
  await expect(answers.getByRole("button")).not.toHaveText(before ?? "");
  expect(sent).toEqual([]);
});

test("the front photo says where the knees stand, level-corrected, and where marks are wrong", async ({
  page,
}) => {
  // Straight legs, but for a knee 20 px inside on a shin of 200: 5.7° in, and the thigh 5.7° out.
  const legs = "200+500+220+300+200+100+400+500+400+300+400+100";
  await page.goto(`/lab?tool=front&marks=${legs}`);
  const answers = page.getByRole("region", { name: "Answers" });
  const left = answers.getByRole("button", { name: "11.4° inside" });
  await left.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Working" })).toContainText("Bend at the knee");
  await expect(answers.getByRole("row", { name: /^right/ })).toContainText("0° inside");
  await expect(answers.getByRole("row", { name: /^left/ })).toContainText("5.7° in");
  await expect(answers).toContainText("never a verdict");
  // The camera leans by as much: to the level edge the same shin stands upright.
  await page.goto(`/lab?tool=front&marks=${legs}+100+550+300+570`);
  await expect(answers.getByRole("row", { name: /^left/ })).toContainText(
    /11\.4° inside\s*0° (in|out)/,
  );
  await page.goto("/lab?tool=front&marks=400+500+400+300+400+100+200+500+200+300+200+100");
  await expect(page.getByRole("alert")).toContainText("the legs are swapped");
  await page.getByRole("button", { name: "Clear the marks" }).click();
  await expect(page.getByText("Camera at knee height, square to the front")).toBeVisible();
});

test("a chart stays drawn while its figures are typed", async ({ page }) => {
  await page.goto("/lab?tool=speed");
  const chart = page.getByRole("img", { name: /^Points:/ });
  const drawn = () => chart.locator("svg path").count();
  await expect.poll(drawn).toBeGreaterThan(10);
  await chart.hover();
  await expect(page.getByRole("img", { name: /^Points: 5 reps/ })).toBeVisible();
  await page
    .getByLabel("Load and speed of each point, in pairs")
    .fill("40 1.2 60 1.0 80 0.8 100 0.6");
  await expect(page.getByRole("img", { name: /^Points: 4 reps/ })).toBeVisible();
  await page.waitForTimeout(500);
  expect(await drawn()).toBeGreaterThan(10);
});
