import {
  type Browser,
  type BrowserContext,
  test as base,
  expect,
  type Page,
} from "@playwright/test";

export type { Browser, Locator, Page } from "@playwright/test";
export { expect };

/**
 * Waits until the page at the present address answers: a document from the server before its
 * scripts run, and the page before while the next is drawn, swallow keys and clicks. A file, or
 * a page without our scripts, is there at once.
 */
async function answers(page: Page): Promise<void> {
  await page
    .waitForFunction(
      () =>
        document.querySelector("script[type=module]") === null ||
        document.documentElement.dataset.shown === location.pathname + location.search ||
        document.querySelector("#problem") !== null,
      undefined,
      { timeout: 20_000 },
    )
    .catch(() => {});
}

function waitForPages(page: Page): void {
  const goto = page.goto.bind(page);
  page.goto = async (...args) => {
    const response = await goto(...args);
    await answers(page);
    return response;
  };
  const reload = page.reload.bind(page);
  page.reload = async (...args) => {
    const response = await reload(...args);
    await answers(page);
    return response;
  };
  const waitForURL = page.waitForURL.bind(page);
  page.waitForURL = async (...args) => {
    await waitForURL(...args);
    await answers(page);
  };
}

/** What the browser had to draw anew, for the server had drawn something else. */
const drawnAnew: string[] = [];
const HYDRATION = /hydrat|Minified React error #4(18|19|2[0-5])\b/i;

/** Pages of a context, the test's own or one made by hand, are waited for; see `answers`. */
function watch(context: BrowserContext): BrowserContext {
  context.on("weberror", (error) => {
    const { message } = error.error();
    if (HYDRATION.test(message)) drawnAnew.push(`${error.page()?.url()}: ${message.slice(0, 200)}`);
  });
  const newPage = context.newPage.bind(context);
  context.newPage = async () => {
    const page = await newPage();
    waitForPages(page);
    return page;
  };
  return context;
}

/**
 * Every test in a browser also fails on what the page's own policy had to stop, and on a page that
 * the browser draws otherwise than the server did.
 */
export const test = base.extend<{ policyHolds: undefined }, { browser: Browser }>({
  browser: [
    async ({ browser }, use) => {
      const newContext = browser.newContext.bind(browser);
      browser.newContext = async (...args) => {
        const context = await newContext(...args);
        // Without scripts a page is there with its document, and none could say more.
        return args[0]?.javaScriptEnabled === false ? context : watch(context);
      };
      await use(browser);
    },
    { scope: "worker" },
  ],
  policyHolds: [
    async ({ context }, use) => {
      const stopped: string[] = [];
      context.on("console", (message) => {
        if (/Content Security Policy|violates the following/i.test(message.text()))
          stopped.push(message.text());
      });
      drawnAnew.length = 0;
      await use(undefined);
      expect(stopped, "what the Content-Security-Policy stopped").toEqual([]);
      expect(drawnAnew, "what the browser drew otherwise than the server").toEqual([]);
    },
    { auto: true },
  ],
});
