import type { Page } from "@playwright/test";

/** Words that stand over one another, or reach out of the page sideways, as the browser drew them. */
export function overlapsOn(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    const over = document.documentElement.scrollWidth - document.documentElement.clientWidth;
    if (over > 0) found.push(`the page scrolls sideways by ${over} px`);
    interface Box {
      text: string;
      element: Element;
      left: number;
      right: number;
      top: number;
      bottom: number;
    }
    /** What is left of a box inside of everything around it that cuts off. */
    const clipped = (box: Box): Box | undefined => {
      let { left, right, top, bottom } = box;
      for (let at: Element | null = box.element; at; at = at.parentElement) {
        const style = getComputedStyle(at);
        if (style.overflowX === "visible" && style.overflowY === "visible") continue;
        const around = at.getBoundingClientRect();
        left = Math.max(left, around.left);
        right = Math.min(right, around.right);
        top = Math.max(top, around.top);
        bottom = Math.min(bottom, around.bottom);
      }
      return right - left > 2 && bottom - top > 2
        ? { ...box, left, right, top, bottom }
        : undefined;
    };
    const boxes: Box[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const text = node.textContent?.trim() ?? "";
      const element = node.parentElement;
      if (text === "" || !element || element.closest("script, style, title, option, noscript"))
        continue;
      // What a closed part holds is somewhere, and not to be seen.
      if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      for (const rect of range.getClientRects()) {
        const { left, right } = rect;
        // The box of a line is higher than its letters.
        const top = rect.top + 0.2 * rect.height;
        const bottom = rect.bottom - 0.18 * rect.height;
        const box = clipped({ text, element, left, right, top, bottom });
        if (box) boxes.push(box);
      }
    }
    const dialog = document.querySelector("dialog[open], [role=dialog]");
    const shown = dialog ? boxes.filter((box) => dialog.contains(box.element)) : boxes;
    const SLACK = 3;
    for (const [i, one] of shown.entries())
      for (const other of shown.slice(i + 1)) {
        if (other.element === one.element) continue;
        const wide = Math.min(one.right, other.right) - Math.max(one.left, other.left);
        const high = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top);
        if (wide > SLACK && high > SLACK)
          found.push(`“${one.text.slice(0, 30)}” over “${other.text.slice(0, 30)}”`);
      }
    return found;
  });
}
