import type { ReactNode } from "react";

/** What a form came to: the words for it, and the problems of its fields. */
export interface FormResult {
  ok: boolean;
  intent?: string;
  code?: string;
  message?: string;
  problems?: Record<string, string>;
}

/** The result of one form of a page that has several. */
export function resultOf(data: unknown, intent: string): FormResult | undefined {
  const result = data as FormResult | undefined;
  return result && (result.intent === undefined || result.intent === intent) ? result : undefined;
}

/** What is wrong with the fields of a page's only form. */
export function problemsOf(data: unknown): Record<string, string> {
  return (data as FormResult | undefined)?.problems ?? {};
}

/** A form that is folded away until it is wanted; it stays open while something is wrong. */
export function Adder({
  title,
  open,
  children,
}: {
  title: string;
  open?: boolean | undefined;
  children: ReactNode;
}) {
  return (
    <details className="adder no-print my-1" open={open}>
      <summary className="inline-block cursor-pointer py-1 text-muted underline underline-offset-3 pointer-coarse:min-h-11">
        {title}
      </summary>
      <div className="my-2 border-l border-rule pl-3">{children}</div>
    </details>
  );
}
