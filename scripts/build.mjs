/** The build, made anew only where what it is made of has changed. */
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { run } from "./run.mjs";

const STAMP = "build/.sources";

/** A fingerprint of what the build is made of: it is built again only when that changed. */
function sources() {
  const hash = createHash("sha256");
  const visit = (place) => {
    if (statSync(place).isDirectory()) {
      for (const name of readdirSync(place).sort()) visit(path.join(place, name));
    } else {
      hash.update(place);
      hash.update(readFileSync(place));
    }
  };
  for (const place of [
    "app",
    "core",
    "device",
    "db",
    "public",
    "vite.config.ts",
    "react-router.config.ts",
    "package-lock.json",
  ]) {
    if (existsSync(place)) visit(place);
  }
  return hash.digest("hex");
}

/** Says that what stands in build/ was made of the sources as they are. */
export function stampBuild() {
  writeFileSync(STAMP, sources());
}

/** Builds where there is no build of these sources. Throws where the build fails. */
export function ensureBuild() {
  const fingerprint = sources();
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === fingerprint) return;
  console.log("Building …");
  if (run("react-router", ["build"], { NODE_ENV: "production" }, "ignore") !== 0)
    throw new Error("The build failed; `npm run build` shows why.");
  writeFileSync(STAMP, fingerprint);
}
