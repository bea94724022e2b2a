import { execFileSync, spawnSync } from "node:child_process";
import { readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { ROUTE_RIGHTS } from "../app/platform/rights";
import routes from "../app/routes";

/** What may not be, and the rule that says so. */
const VIOLATIONS: Array<[folder: string, text: string, rule: string]> = [
  ["core/units", 'import "../velocity/analyse";', "core-units"],
  ["core/wave", 'import "../floor/state";', "core-wave"],
  ["core/wave", 'import "react";', "core-is-pure"],
  ["core/wave", 'import "node:fs";', "core-is-pure"],
  ["device", 'import "../db/invariant";', "device"],
  ["app/forms", 'import "../ui/page";', "forms"],
  ["app/ui", 'import "../workflows/find.server";', "ui"],
  ["app/offline", 'import "../ui/theme";', "offline"],
  ["app/platform", 'import "../workflows/find.server";', "platform"],
  ["app/workflows", 'import "../ui/theme";', "workflows"],
  ["app/routes/lab", 'import "../../../db/queries/gear.server";', "routes"],
  ["app/routes/lab", 'import "../plan/plan";', "routes-stay-in-their-place"],
];

describe("the import rule fails on a planted violation", () => {
  const files = VIOLATIONS.map(([folder], i) => `${folder}/planted.${i}.ts`);
  let broken: Array<{ from: string; rule: { name: string } }> = [];

  beforeAll(() => {
    VIOLATIONS.forEach(([, text], i) => {
      writeFileSync(files[i] as string, `${text}\n`);
    });
    try {
      // All in one look over the tree: each takes seconds.
      const { stdout } = spawnSync(
        "node_modules/.bin/depcruise",
        ["--config", ".dependency-cruiser.cjs", "--output-type", "json", ...files],
        { encoding: "utf8", maxBuffer: 2 ** 28 },
      );
      broken = JSON.parse(stdout).summary.violations;
    } finally {
      for (const file of files) rmSync(file, { force: true });
    }
  }, 60_000);

  it.each(VIOLATIONS.map((one, i) => [...one, i] as const))(
    "in %s, %s breaks %s",
    (_folder, _text, rule, i) => {
      const own = broken.filter((one) => one.from === files[i]);
      expect(own.map((one) => one.rule.name)).toContain(rule);
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
      "OVERHEAD_EVERY_WEEKS",
      "BETWEEN_EXERCISES_S",
      "LIFT_WORK",
      "CONFIRM_AFTER_S",
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
