import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

/**
 * axe over a page, every rule; of a table's or list's like rows the first six, for the others are
 * made alike. No page of ours holds a frame, so nothing is put together in a page of its own.
 */
export const lookAt = (page: Page) =>
  new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ["violations"] })
    .exclude("tbody > tr:nth-child(n+7)")
    .exclude("ul > li:nth-child(n+7)")
    .exclude("ol > li:nth-child(n+7)");
