import type { ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import { useAddress } from "../../../ui/use-address";

/** Which part of the page stands open, in its address: one at a time, the others stay as headings. */
export const OPEN = "open";

export const liftPart = (variantId: string) => `lift-${variantId}`;

export function useOpenPart(): string {
  return useSearchParams()[0].get(OPEN) ?? "";
}

/** A heading that opens its part in place, and closes it; a link, so that it works without scripts. */
export function OpensPart({
  part,
  children,
  className = "",
}: {
  part: string;
  children: ReactNode;
  className?: string;
}) {
  const { params, set } = useAddress();
  const open = params.get(OPEN) === part;
  const to = new URLSearchParams(params);
  if (open) to.delete(OPEN);
  else to.set(OPEN, part);
  return (
    <Link
      to={{ search: to.toString() }}
      replace
      preventScrollReset
      aria-expanded={open}
      onClick={(event) => {
        if (event.metaKey || event.ctrlKey || event.shiftKey) return;
        event.preventDefault();
        set(OPEN, open ? "" : part);
      }}
      className={`inline-flex min-h-8 items-baseline gap-1 hover:underline pointer-coarse:min-h-11 ${className}`}
    >
      <span aria-hidden="true" className="inline-block w-3 text-muted">
        {open ? "▾" : "▸"}
      </span>
      <span>{children}</span>
    </Link>
  );
}
