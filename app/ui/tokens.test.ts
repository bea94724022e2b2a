import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

/** Contrast of every pair of colours that is used for text or edges (WCAG 2.2). */
const css = readFileSync("app/app.css", "utf8");

function tokens(theme: string): Record<string, string> {
  const found: Record<string, string> = {};
  const plugin = css.split("@plugin").find((part) => part.includes(`name: "${theme}"`)) ?? "";
  const beside = css.split(`[data-theme="${theme}"] {`)[1]?.split("}")[0] ?? "";
  for (const [, name, value] of `${plugin.split("}")[0]}${beside}`.matchAll(
    /--([\w-]+): (#[0-9a-f]{6})/g,
  )) {
    if (name && value) found[name] = value;
  }
  return found;
}

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const c = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

const SURFACES = ["color-base-100", "color-base-200", "wash", "rust-wash"];
const TEXTS = ["color-base-content", "muted", "color-primary", "color-secondary", "color-accent"];

describe.each(["chalk", "cellar"])("%s", (theme) => {
  const all = tokens(theme);
  const of = (name: string) => {
    const value = all[name];
    if (!value) throw new Error(`${theme} has no ${name}`);
    return value;
  };

  it.each(SURFACES.flatMap((surface) => TEXTS.map((text) => [text, surface])))(
    "%s on %s reads at 4.5 : 1 or more",
    (text, surface) => {
      expect(contrast(of(text), of(surface))).toBeGreaterThanOrEqual(4.5);
    },
  );

  it.each([
    ["color-primary-content", "color-primary"],
    ["color-neutral-content", "color-neutral"],
    ["color-base-100", "iron"],
  ])("%s on %s reads at 4.5 : 1 or more", (text, surface) => {
    expect(contrast(of(text), of(surface))).toBeGreaterThanOrEqual(4.5);
  });

  it.each(["color-base-100", "color-base-200"])("edges of controls on %s: 3 : 1", (surface) => {
    expect(contrast(of("control"), of(surface))).toBeGreaterThanOrEqual(3);
  });

  if (theme === "chalk")
    it.each(["color-base-100", "color-base-200", "wash"])(
      "a station's small text on %s: 7 : 1",
      (surface) => {
        const own = /\.station \{[^}]*--muted: (#[0-9a-f]{6})/.exec(css)?.[1] ?? "none";
        expect(contrast(own, of(surface))).toBeGreaterThanOrEqual(7);
      },
    );

  if (theme === "cellar") {
    it.each(
      TEXTS.flatMap((text) => [
        [text, "color-base-100"],
        [text, "color-base-200"],
      ]),
    )("the rack screen's %s on %s: 7 : 1", (text, surface) => {
      expect(contrast(of(text as string), of(surface as string))).toBeGreaterThanOrEqual(7);
    });
  }
});
