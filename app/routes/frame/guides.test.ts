import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { GUIDES, guideFor } from "./guides";

/** Pages of the frame that explain themselves: papers, accounts, lists of forms. */
const WITHOUT = ["/first-hour", "/account"];

describe("guides", () => {
  const text = readFileSync("docs/guide/README.md", "utf8");
  const routes = readFileSync("app/routes.ts", "utf8");

  it("every page under the frame has one", () => {
    const [, framed = ""] = /frame\.tsx"[^[]*\[([\s\S]*?)\]/.exec(routes) ?? [];
    const paths = [...framed.matchAll(/route\("([^"]+)"/g)].map(
      ([, path]) => `/${(path ?? "").replace(/:\w+/g, "01900000-0000-7000-8000-000000000001")}`,
    );
    expect(paths.length).toBeGreaterThan(30);
    expect(paths.filter((path) => !WITHOUT.includes(path) && guideFor(path) === undefined)).toEqual(
      [],
    );
  });

  it("says the same as the guide for coaches, and is read in a minute", () => {
    for (const guide of GUIDES) {
      for (const words of [guide.title, guide.shows, ...guide.steps]) expect(text).toContain(words);
      const words = [...guide.steps, guide.shows].join(" ").split(" ").length;
      expect(words).toBeLessThan(170);
    }
  });

  it("a page's own guide comes before its place's", () => {
    expect(guideFor("/floor/groups")?.id).toBe("groups");
    expect(guideFor("/athletes/squads")?.id).toBe("athletes");
    expect(guideFor("/athletes/0190/box")?.id).toBe("box");
    expect(guideFor("/lab/profile")?.id).toBe("profiles");
    expect(guideFor("/lab?max=120&tool=video")?.id).toBe("video");
    expect(guideFor("/lab?tool=videos")?.id).toBe("lab");
  });
});
