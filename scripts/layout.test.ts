import { execFileSync, spawnSync } from "node:child_process";
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ROUTE_RIGHTS } from "../app/platform/rights";
import routes from "../app/routes";
import { COACH_VALUES } from "../core/settings/coach-values";
import { TEAM_DEFAULTS } from "../core/settings/team-defaults";

/** What may not be, and the rule that says so: a file, and what it imports. */
const VIOLATIONS: Array<[from: string, to: string, rule: string]> = [
  ["core/units/a.ts", "core/velocity/b.ts", "core-units"],
  ["core/recipe/a.ts", "core/floor/b.ts", "core-recipe"],
  ["core/settings/a.ts", "core/boxsquat/b.ts", "core-settings"],
  ["core/barload/a.ts", "core/maxes/b.ts", "barload-knows-no-maxes"],
  ["core/plan/a.ts", "react", "core-is-pure"],
  ["core/plan/a.ts", "node:fs", "core-is-pure"],
  ["core/floor/a.ts", "app/forms/b.ts", "core-floor"],
  ["device/a.ts", "db/b.ts", "device"],
  ["app/forms/a.ts", "app/ui/b.ts", "forms"],
  ["app/ui/a.ts", "app/workflows/lab/b.ts", "ui"],
  ["app/offline/a.ts", "app/ui/b.ts", "offline"],
  ["app/platform/a.ts", "app/workflows/lab/b.ts", "platform"],
  ["app/platform/a.ts", "app/forms/b.ts", "platform"],
  ["app/workflows/lab/a.ts", "app/ui/b.ts", "workflows"],
  ["app/workflows/lab/a.ts", "app/workflows/plan/b.ts", "workflows-stay-in-their-place"],
  ["app/workflows/lifters/a.ts", "app/workflows/plan/b.ts", "workflows-stay-in-their-place"],
  ["app/routes/lab/a.ts", "db/b.ts", "routes"],
  ["app/routes/lab/a.ts", "app/routes/plan/b.ts", "routes-stay-in-their-place"],
  ["core/gear/a.ts", "core/gear/c.ts", "no-circles"],
];

/** What may be: the rule must not say so. */
const ALLOWED: Array<[from: string, to: string]> = [
  ["core/floor/a.ts", "core/units/b.ts"],
  ["app/workflows/lab/a.ts", "app/workflows/lifters/b.ts"],
  ["app/routes/lab/a.ts", "app/workflows/lab/b.ts"],
];

describe("the import rule fails on a violation", () => {
  let broken: Array<{ from: string; rule: { name: string } }> = [];
  /** A house of its own, with a file for each case: nothing is planted in this one. */
  const house = mkdtempSync(path.join(tmpdir(), "sprezza-house-"));
  const fileOf = (from: string, i: number) => from.replace("/a.ts", `/a${i}.ts`);
  const cases = [...VIOLATIONS, ...ALLOWED];

  beforeAll(() => {
    for (const name of [".dependency-cruiser.cjs", "tsconfig.json", "package.json"])
      copyFileSync(name, path.join(house, name));
    symlinkSync(path.resolve("node_modules"), path.join(house, "node_modules"));
    const write = (file: string, text: string) => {
      mkdirSync(path.dirname(path.join(house, file)), { recursive: true });
      writeFileSync(path.join(house, file), text);
    };
    cases.forEach(([from, to], i) => {
      const inHouse = to.endsWith(".ts");
      const back = to.endsWith("/c.ts") ? `import "./a${i}";\n` : "";
      if (inHouse) write(to, `${back}export const b = 1;\n`);
      const at = path.relative(path.dirname(from), to.replace(/\.ts$/, ""));
      write(
        fileOf(from, i),
        `import "${inHouse && !at.startsWith(".") ? `./${at}` : inHouse ? at : to}";\n`,
      );
    });
    const { stdout } = spawnSync(
      path.resolve("node_modules/.bin/depcruise"),
      ["--config", ".dependency-cruiser.cjs", "--output-type", "json", "core", "device", "app"],
      { encoding: "utf8", maxBuffer: 2 ** 28, cwd: house },
    );
    broken = JSON.parse(stdout).summary.violations;
  }, 60_000);
  afterAll(() => rmSync(house, { recursive: true, force: true }));

  it.each(VIOLATIONS.map((one, i) => [...one, i] as const))(
    "%s may not import %s (%s)",
    (from, _to, rule, i) => {
      const found = broken.filter((one) => one.from === fileOf(from, i));
      expect(found.map((one) => one.rule.name)).toContain(rule);
    },
  );

  it.each(ALLOWED.map((one, i) => [...one, i + VIOLATIONS.length] as const))(
    "%s may import %s",
    (from, _to, i) => {
      expect(broken.filter((one) => one.from === fileOf(from, i))).toEqual([]);
    },
  );
});

interface RouteNode {
  path?: string;
  index?: boolean;
  file: string;
  children?: RouteNode[];
}

function addresses(nodes: RouteNode[]): Array<{ path: string; file: string }> {
  return nodes.flatMap((node) => [
    ...(node.index || node.path
      ? [{ path: node.index ? "/" : `/${node.path}`, file: path.join("app", node.file) }]
      : []),
    ...addresses(node.children ?? []),
  ]);
}

describe("the table of rights", () => {
  const known = addresses(routes as RouteNode[]);

  it("covers every route, and nothing else", () => {
    expect(ROUTE_RIGHTS.map((rule) => rule.path).sort()).toEqual(
      known.map((one) => one.path).sort(),
    );
  });

  it.each(known.map((one) => [one.path, one.file]))(
    "%s takes an action only if its module has one",
    (address, file) => {
      const source = readFileSync(file as string, "utf8");
      const acts = /export (async )?function action\b/.test(source);
      const rule = ROUTE_RIGHTS.find((one) => one.path === address);
      expect(rule?.write !== undefined).toBe(acts);
    },
  );

  it("is asked by the root's own middleware", () => {
    expect(readFileSync("app/root.tsx", "utf8")).toMatch(/middleware[\s\S]*guard\(/);
  });
});

describe("what a coach can set", () => {
  const sources = execFileSync("git", ["ls-files", "-co", "--exclude-standard", "core", "app"], {
    encoding: "utf8",
  })
    .trim()
    .split("\n")
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file))
    .filter((file) => !file.startsWith("core/settings/") && existsSync(file))
    .map((file) => readFileSync(file, "utf8"));

  it.each([...COACH_VALUES, ...TEAM_DEFAULTS].map((one) => one.key))(
    "%s is read by something: a setting that changes nothing is a fault",
    (key) => {
      // As a member of the team's values, or asked for by its name.
      const reader = new RegExp(`(values|Values|settings)\\??\\.${key}\\b|"${key}"`);
      expect(sources.some((text) => reader.test(text))).toBe(true);
    },
  );
});

describe("the house", () => {
  const files = execFileSync("git", ["ls-files"], { encoding: "utf8" }).trim().split("\n");

  it("has no names that say nothing", () => {
    expect(files.filter((file) => /(^|\/)(utils?|helpers?|misc|common)(\/|\.)/.test(file))).toEqual(
      [],
    );
  });

  it("keeps what only the server may know behind its suffix", () => {
    for (const folder of ["app/platform", "db/queries"]) {
      const open = readdirSync(folder).filter(
        (name) =>
          !/\.server\.(test\.)?ts$/.test(name) && !["rights.ts", "outcome.ts"].includes(name),
      );
      expect(open, folder).toEqual([]);
    }
  });

  it("marks every workflow that is a use of the server", () => {
    const workflows = files.filter((file) => /^app\/workflows\/.*\.ts$/.test(file));
    expect(workflows.filter((file) => !/\.server\.(test\.)?ts$/.test(file))).toEqual([]);
  });

  const pages = files.filter((file) => /^app\/(routes|ui)\/.*\.tsx?$/.test(file));

  it("makes no working on a page: the core returns it with the figure", () => {
    expect(pages.filter((file) => /working=\{\{/.test(readFileSync(file, "utf8")))).toEqual([]);
  });

  it("has no function of a page over 200 lines", () => {
    const long = pages.flatMap((file) => {
      const lines = readFileSync(file, "utf8").split("\n");
      let from = -1;
      return lines.flatMap((line, i) => {
        if (/^(export )?(default )?(async )?function/.test(line)) from = i;
        if (line !== "}" || from < 0) return [];
        const length = i - from + 1;
        from = -1;
        return length > 200 ? [`${file}: ${length} lines end at ${i + 1}`] : [];
      });
    });
    expect(long).toEqual([]);
  });

  it("names no file in its documents that is not there", () => {
    const documents = files.filter((file) => /^(docs\/.*|README)\.md$/.test(file));
    const gone = documents.flatMap((document) =>
      [
        ...readFileSync(document, "utf8").matchAll(
          /`((?:core|app|db|device|scripts|e2e|bench|docs)\/[\w./-]+?)`/g,
        ),
      ]
        .map(([, named = ""]) => named)
        .filter((named) => !existsSync(named))
        .map((named) => `${document}: ${named}`),
    );
    expect(gone).toEqual([]);
  });

  it("gives every source of a number a line in docs/sources.md", () => {
    const sources = readFileSync("docs/sources.md", "utf8");
    for (const name of [
      "STALE_AFTER_DAYS",
      "LARGE_JUMP_SHARE",
      "DEFAULT_FACTORS",
      "TARGET_HALF_WIDTH_MPS",
      "REST_STEP_S",
      "DEFAULT_SET_S",
      "DEFAULT_CHANGE_S",
      "SHORT_REST_SHARE",
      "PRILEPIN",
      "HEAVY_PERCENT",
      "SPEED_LOSS_MOST",
      "BETWEEN_EXERCISES_S",
      "LIFT_WORK",
      "EDGE_MPS",
      "TWO_PASS_CORRECTION",
      "STREAM_DEFAULTS",
      "GROUP_CURVES",
      "LONGEST_GAP_S",
      "TRUSTED_TRAINING_YEARS",
      "REP_MAX_MOST_REPS",
      "RATIO_PAIR_DAYS",
      "COMPETITION_MARK_DAYS",
      "AFTER_COMPETITION_DAYS",
      "MINOR_THROUGH_AGE",
      "REASON_REFUSES",
      "MOST_VELOCITY_MPS",
      "MVT_DEFAULTS_MPS",
      "MVT_DEFAULT_WEIGHT",
      "MVT_SD_MPS",
      "LEAST_SPAN_SHARE",
      "PROFILE_STEPS",
      "RAMP_BODY_SHARE",
      "BODY_MASS_SHARE",
      "TEST_ERROR_MPS",
      "WEAKER_SIDE_SD",
      "DAY_SHIFT_SD_MPS",
      "READING_SD_MPS",
      "LARGEST_CHANGE_SHARE",
      "WORTHWHILE_SHARE",
      "UNCLEAR_ABOVE",
      "EXTRA_PLATES",
      "MOST_STACKS",
      "WARM_UP_SHARES",
      "LONGEST_BAND_M",
      "ANCHOR_WARN_SHARE",
      "UPPER_BODY_SHARE",
      "BOX_OVER_CM",
      "JUMP_MPS",
      "SET_GAP_S",
    ]) {
      expect(sources, name).toContain(name);
    }
  });
});
