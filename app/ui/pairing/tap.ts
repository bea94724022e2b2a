import type { ItemAddress, ItemEntryBody } from "../../../core/floor/entries";

/** A tap of a pairing, without whose it is: the row knows that. */
export type Tap = ItemEntryBody extends infer Body
  ? Body extends ItemEntryBody
    ? Omit<Body, Exclude<keyof ItemAddress, "round" | "item">>
    : never
  : never;
