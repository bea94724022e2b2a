const KEY = "sprezza.single-keys";

/** Single-key shortcuts can be switched off, for those who speak to their computer. */
export function singleKeysOn(): boolean {
  return typeof localStorage === "undefined" || localStorage.getItem(KEY) !== "off";
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(KEY, on ? "on" : "off");
}
