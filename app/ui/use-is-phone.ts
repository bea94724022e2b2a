import { useSyncExternalStore } from "react";

/** Narrower than the first of the style sheet's steps. */
const PHONE = "(max-width: 639.98px)";

const subscribe = (tell: () => void) => {
  const query = window.matchMedia(PHONE);
  query.addEventListener("change", tell);
  return () => query.removeEventListener("change", tell);
};

/** Whether this is a phone's width; the server, which cannot know, draws for a desk. */
export const useIsPhone = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => window.matchMedia(PHONE).matches,
    () => false,
  );
