import base from "./playwright.config";

/** The browser's part of `npm run soak`: files too long for every day. */
export default {
  ...base,
  testMatch: "*.soak.ts",
  timeout: 600_000,
  reporter: [["list"]] as [["list"]],
};
