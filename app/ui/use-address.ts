import { useEffect } from "react";
import { type ShouldRevalidateFunctionArgs, useLocation, useSearchParams } from "react-router";

import { afterSubmission, tellAddressUnderWay } from "./after-submission";

/** What this tab wrote into its address and the address does not show yet, in order: one list for all parts of a page. */
let sent: string[] = [];
/** The address that was read last, by its key in the history. */
let read: string | undefined;

function readArrival(key: string, search: string): void {
  if (key === read) return;
  read = key;
  // Ours arrived, and those before it count no more; or somebody went elsewhere: none counts.
  const at = sent.indexOf(search);
  sent = at < 0 ? [] : sent.slice(at + 1);
  if (sent.length === 0) tellAddressUnderWay(false);
}

/**
 * A page's state in its address. Changes that come faster than the address follows are added to
 * each other: none is lost while a load is under way.
 */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  const { key } = useLocation();
  useEffect(() => readArrival(key, params.toString()), [key, params]);
  /** The address as it was last asked for: what a page that is under way will have. */
  // The browser's own address: a link that was followed a moment ago counts already.
  const asked = () => new URLSearchParams(sent.at(-1) ?? window.location.search);
  /** Writes values; an empty one is left out of the address. */
  const setAll = (values: Readonly<Record<string, string>>) => {
    const next = asked();
    for (const [name, value] of Object.entries(values)) {
      if (value === "") next.delete(name);
      else next.set(name, value);
    }
    sent.push(next.toString());
    tellAddressUnderWay(true);
    afterSubmission(() => setParams(next, { replace: true, preventScrollReset: true }));
  };
  return {
    params,
    asked,
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
