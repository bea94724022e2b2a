/** The two themes: chalk for daylight, cellar for dim rooms and rack tablets. */
export type Theme = "chalk" | "cellar";

export function readTheme(cookies: string | null): Theme | undefined {
  const match = /(?:^|;\s*)theme=(chalk|cellar)/.exec(cookies ?? "");
  return match?.[1] as Theme | undefined;
}

/** Switches this browser at once and for the next year. */
export function switchTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store API is missing where tablets need it
  document.cookie = `theme=${theme}; Path=/; Max-Age=31536000; SameSite=Lax`;
}

/** Whether this browser has put the margin away. */
export function readMargin(cookies: string | null): "away" | undefined {
  return /(?:^|;\s*)margin=away/.test(cookies ?? "") ? "away" : undefined;
}

/** Puts the margin away, or brings it back, at once and for the next year. */
export function switchMargin(): void {
  const away = document.documentElement.dataset.margin !== "away";
  if (away) document.documentElement.dataset.margin = "away";
  else delete document.documentElement.dataset.margin;
  // biome-ignore lint/suspicious/noDocumentCookie: as above
  document.cookie = `margin=${away ? "away" : "here"}; Path=/; Max-Age=31536000; SameSite=Lax`;
}
