/**
 * A document stands on the screen a while before its scripts answer, longer on a slow tablet: what
 * was chosen meanwhile is said again once they do, for nobody heard it the first time.
 */
type Control = HTMLInputElement | HTMLSelectElement;

/** Kinds of fields whose value a page may follow at once; a file cannot be chosen by a script. */
const FOLLOWED =
  'select, input[type="checkbox"], input[type="radio"], input[type="text"], input[type="search"], input[type="number"], input[type="date"]';

const isTick = (control: Control): boolean =>
  control instanceof HTMLInputElement && ["checkbox", "radio"].includes(control.type);

function wasChanged(control: Control): boolean {
  if (control instanceof HTMLSelectElement) {
    if (control.multiple) return false;
    const first = [...control.options].findIndex((option) => option.defaultSelected);
    return control.selectedIndex !== Math.max(0, first);
  }
  const input: HTMLInputElement = control;
  return isTick(input)
    ? input.checked !== input.defaultChecked
    : input.value !== input.defaultValue;
}

/** What differs from the document as it came; to be asked before the scripts take it over. */
export function earlyChanges(root: ParentNode): () => void {
  // A browser puts back what stood in a field before a reload; that is nobody's choice of now.
  if (!navigator.userActivation?.hasBeenActive) return () => {};
  const changed = [...root.querySelectorAll<Control>(FOLLOWED)].filter(wasChanged).map(
    (control) =>
      ({
        control,
        value: control.value,
        checked: control instanceof HTMLInputElement && control.checked,
      }) as const,
  );
  return () => {
    for (const { control, value, checked } of changed)
      if (control.isConnected) sayAgain(control, value, checked);
  };
}

/** As the hand does it: the element's own setter, for the page's library watches the instance's. */
function sayAgain(control: Control, value: string, checked: boolean): void {
  if (control instanceof HTMLInputElement && isTick(control)) {
    // A radio is only ever put on; the press is what the library hears.
    if (control.type === "radio" && !checked) return;
    if (control.checked === checked) control.checked = !checked;
    control.click();
    return;
  }
  const prototype =
    control instanceof HTMLSelectElement ? HTMLSelectElement.prototype : HTMLInputElement.prototype;
  Object.getOwnPropertyDescriptor(prototype, "value")?.set?.call(control, value);
  control.dispatchEvent(new Event("input", { bubbles: true }));
  control.dispatchEvent(new Event("change", { bubbles: true }));
}
