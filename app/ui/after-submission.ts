import { say } from "./said";

/**
 * An address that changes while a form is on its way would break the form off: what it kept would not
 * be read again. Changes of the address wait until it is back and read.
 */
/** A form or a page that is under way is waited for so long, ms. */
const MOST_WAIT_MS = 5000;

let running = 0;
let loading = false;
let waiting: (() => void) | undefined;

function flush(): void {
  if (running > 0 || loading || !waiting) return;
  const act = waiting;
  waiting = undefined;
  act();
}

/** A form's way to the server and back. */
export async function duringSubmission<T>(work: () => Promise<T>): Promise<T> {
  running += 1;
  try {
    return await work();
  } finally {
    running -= 1;
    // Its page is loaded next, and that is told a moment later.
    setTimeout(flush, 0);
  }
}

/** Said by the frame: whether what a form changed is being sent or read. */
export function tellFormUnderWay(on: boolean): void {
  loading = on;
  if (!on) flush();
}

export const isFormUnderWay = (): boolean => running > 0 || loading;

/**
 * A link pressed right after a form would show what was before it: while a form is under way links
 * of ours wait like any other change of the address. Listens until the function given back is called.
 */
export function holdLinks(): () => void {
  const hold = (event: MouseEvent) => {
    if (!isFormUnderWay() || event.button !== 0) return;
    if (event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    const link = event.target instanceof Element ? event.target.closest("a") : null;
    if (!link?.href || link.origin !== location.origin) return;
    if (link.hasAttribute("download") || (link.target !== "" && link.target !== "_self")) return;
    event.preventDefault();
    event.stopPropagation();
    afterSubmission(() => (link.isConnected ? link.click() : location.assign(link.href)));
  };
  window.addEventListener("click", hold, true);
  return () => window.removeEventListener("click", hold, true);
}

/** The newest change of the address is on its way since then, ms; its page is not there yet. */
let changingSince: number | undefined;
let held: { form: HTMLFormElement; submitter: HTMLElement | null } | undefined;

/** Said with a change of the address that a page asks for, and by whoever sees it arrive. */
export function tellAddressUnderWay(on: boolean): void {
  changingSince = on ? Date.now() : undefined;
  if (on || !held) return;
  const { form, submitter } = held;
  held = undefined;
  // The new page is drawn first.
  setTimeout(() => {
    if (!form.isConnected) say("The page has what you chose now. Look at it, and press again.");
    else form.requestSubmit(submitter?.isConnected ? submitter : null);
  }, 0);
}

/**
 * A form that is sent right after something was chosen would still be the form of what was chosen
 * before: it waits until the page is there. Where that page has another form in its place, that is
 * said, for nobody has looked at it yet. Listens until the function given back is called.
 */
export function holdForms(): () => void {
  const hold = (event: SubmitEvent) => {
    const { target: form } = event;
    if (changingSince === undefined || Date.now() - changingSince > MOST_WAIT_MS) return;
    if (!(form instanceof HTMLFormElement) || form.method !== "post") return;
    event.preventDefault();
    event.stopPropagation();
    held = { form, submitter: event.submitter };
  };
  window.addEventListener("submit", hold, true);
  return () => window.removeEventListener("submit", hold, true);
}

/** Does it now, or once no form is under way; the last asked for alone. */
export function afterSubmission(act: () => void): void {
  if (!isFormUnderWay()) {
    act();
    return;
  }
  waiting = act;
  // A form that hangs holds nobody for long.
  setTimeout(() => {
    if (waiting !== act) return;
    waiting = undefined;
    act();
  }, MOST_WAIT_MS);
}
