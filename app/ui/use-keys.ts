import { useEffect, useRef } from "react";
import { singleKeysOn } from "./single-keys";

/** Keys by name, as `event.key` has them; capitals are with Shift. */
type Keys = Readonly<Record<string, (key: string) => void>>;

/**
 * Single keys of a screen, while `on`: nothing while somebody types, holds Ctrl, Alt or Meta, or
 * a dialog is open over it. Small, for the rack's tablet loads it.
 */
export function useKeys(keys: Keys, on: boolean): void {
  const now = useRef({ keys, on });
  now.current = { keys, on };
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      // Characters can be switched off, for those who speak to their computer.
      if (event.key.length === 1 && !singleKeysOn()) return;
      if (!now.current.on || event.ctrlKey || event.altKey || event.metaKey) return;
      if (event.repeat || isTyping(event.target)) return;
      const act = now.current.keys[event.key];
      if (!act) return;
      event.preventDefault();
      act(event.key);
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, []);
}

export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
