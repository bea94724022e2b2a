import { test as base, expect } from "@playwright/test";

export type { Browser, Locator, Page } from "@playwright/test";
export { expect };

/** Every test in a browser also fails on what the page's own policy had to stop. */
export const test = base.extend<{ policyHolds: undefined }>({
  policyHolds: [
    async ({ context }, use) => {
      const stopped: string[] = [];
      context.on("console", (message) => {
        if (/Content Security Policy|violates the following/i.test(message.text()))
          stopped.push(message.text());
      });
      await use(undefined);
      expect(stopped, "what the Content-Security-Policy stopped").toEqual([]);
    },
    { auto: true },
  ],
});
