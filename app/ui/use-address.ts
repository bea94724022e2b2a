import { useEffect, useRef } from "react";
import { type ShouldRevalidateFunctionArgs, useSearchParams } from "react-router";

import { afterSubmission, tellAddressUnderWay } from "./after-submission";

/**
 * A page's state in its address. Changes that come faster than the address follows are added to
 * each other: none is lost while a load is under way.
 */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  /** What was written and the address does not show yet, in order. */
  const sent = useRef<string[]>([]);
  useEffect(() => {
    // Ours arrived, and those before it count no more; or somebody went elsewhere: none counts.
    const at = sent.current.indexOf(params.toString());
    sent.current = at < 0 ? [] : sent.current.slice(at + 1);
    if (sent.current.length === 0) tellAddressUnderWay(false);
  }, [params]);
  /** Writes values; an empty one is left out of the address. */
  const setAll = (values: Readonly<Record<string, string>>) => {
    // The browser's own address: a link that was followed a moment ago counts already.
    const next = new URLSearchParams(sent.current.at(-1) ?? window.location.search);
    for (const [name, value] of Object.entries(values)) {
      if (value === "") next.delete(name);
      else next.set(name, value);
    }
    sent.current.push(next.toString());
    tellAddressUnderWay(true);
    afterSubmission(() => setParams(next, { replace: true, preventScrollReset: true }));
  };
  return {
    params,
    get: (name: string) => params.get(name) ?? "",
    set: (name: string, value: string) => setAll({ [name]: value }),
    setAll,
  };
}

/** For pages that load the same whatever their address says: a filter is not a reason to load. */
export function keepOnFilter(args: ShouldRevalidateFunctionArgs): boolean {
  const result = args.actionResult as { ok?: boolean } | undefined;
  if (result?.ok === false) return false;
  const samePage = args.currentUrl.pathname === args.nextUrl.pathname;
  const filtered = samePage && args.currentUrl.search !== args.nextUrl.search;
  return filtered && args.formMethod === undefined ? false : args.defaultShouldRevalidate;
}
