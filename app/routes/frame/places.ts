import type { Role } from "../../platform/rights";

export interface Place {
  name: string;
  to: string;
  /** After `g`. */
  key: string;
  /** One of the five places in the bar; the others are in the menu. */
  main: boolean;
  roles: readonly Role[];
}

/** Stands before the others until a new team has come to its first session. */
export const FIRST_HOUR: Place = {
  name: "First hour",
  to: "/first-hour",
  key: "",
  main: true,
  roles: ["owner", "coach"],
};

const staff: readonly Role[] = ["owner", "coach", "assistant"];

/** In the order of the coach's week. A place that is not built is not here. */
export const PLACES: readonly Place[] = [
  { name: "Floor", to: "/floor", key: "f", main: true, roles: staff },
  { name: "Plan", to: "/plan", key: "p", main: true, roles: staff },
  { name: "Athletes", to: "/athletes", key: "a", main: true, roles: staff },
  { name: "Lab", to: "/lab", key: "l", main: true, roles: staff },
  { name: "Review", to: "/review", key: "r", main: true, roles: staff },
  { name: "My card", to: "/card", key: "c", main: true, roles: ["athlete"] },
  { name: "Gear", to: "/gear", key: "e", main: false, roles: staff },
  { name: "Library", to: "/library", key: "b", main: false, roles: staff },
  { name: "Data", to: "/data", key: "d", main: false, roles: ["owner", "coach"] },
  { name: "People", to: "/people", key: "o", main: false, roles: ["owner", "coach"] },
  { name: "Tablets", to: "/tablets", key: "t", main: false, roles: ["owner", "coach"] },
];
