import base from "./playwright.config";

/** `npm run pictures`: the pictures of docs/screenshots, from the demo data on the fixed clock. */
export default {
  ...base,
  testMatch: "pictures.ts",
  reporter: [["list"]] as [["list"]],
};
