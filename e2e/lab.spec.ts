import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { stateFile } from "./people";

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
    address: "/lab?tool=rest&n=4",
    answer: "1:04",
    working: "4 (8 + 10) − 8",
    field: "Lifters on the bar",
    bad: "0",
    says: "One to thirty lifters",
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
    const found = await new AxeBuilder({ page }).analyze();
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

test("bands need two readings, and an anchor that holds", async ({ page }) => {
  await page.goto("/lab?tool=resistance&kind=band");
  await expect(
    page.getByText(/Refused\. The bands pull .* no anchor weight is stated/),
  ).toBeVisible();
  const anchor = page.getByLabel("Anchor weighs, kg a side");
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
