import { useSyncExternalStore } from "react";

const never = () => () => {};

/**
 * Whether this page is live: false on the server, and while the page takes over what the server
 * drew. What only this browser knows is drawn from then on, so that both draw the same before.
 */
export const useIsLive = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
