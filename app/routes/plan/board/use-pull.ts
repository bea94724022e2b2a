import { type PointerEvent, useRef, useState } from "react";

/**
 * Pulling a handle by pointer or finger: how far it is from where it was taken, in steps, while it is
 * pulled; told once more when it is let go. Whoever pulls can do the same by keys.
 * @param size px of a step
 * @param fine divides a step while Shift is held
 */
export function usePull(options: {
  axis: "x" | "y";
  size: () => number;
  fine?: number;
  /** With each step: how far it is, and how far since the step before. */
  onPull?: (steps: number, by: number) => void;
  onDone?: (steps: number) => void;
}) {
  const from = useRef<number>(undefined);
  const [steps, setSteps] = useState(0);
  const along = (event: PointerEvent) => (options.axis === "x" ? event.clientX : -event.clientY);
  const stepsOf = (event: PointerEvent) => {
    const size = options.size();
    const fine = event.shiftKey ? (options.fine ?? 1) : 1;
    return from.current === undefined || !(size > 0)
      ? 0
      : Math.round(((along(event) - from.current) * fine) / size) / fine;
  };
  return {
    steps,
    handlers: {
      onPointerDown(event: PointerEvent) {
        if (event.button !== 0) return;
        event.preventDefault();
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = along(event);
      },
      onPointerMove(event: PointerEvent) {
        if (from.current === undefined) return;
        const now = stepsOf(event);
        if (now === steps) return;
        options.onPull?.(now, now - steps);
        setSteps(now);
      },
      onPointerUp(event: PointerEvent) {
        if (from.current === undefined) return;
        const now = stepsOf(event);
        from.current = undefined;
        setSteps(0);
        options.onDone?.(now);
      },
      onPointerCancel() {
        from.current = undefined;
        setSteps(0);
      },
    },
  };
}
