import { type Failure, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

export type Person = Extract<Principal, { kind: "person" }>;

/** Changes of people are people's: a tablet has none of them. */
export function asPerson(principal: Principal): Person {
  if (principal.kind !== "person") throw new Response("People only.", { status: 403 });
  return principal;
}

export const NOT_YOURS = failed(
  "not-yours",
  "Your role does not allow this. Coaches look after athletes' sign-ins, owners after everybody's.",
);

export const NOBODY = failed("nobody", "This person is not in your team any more.");

export const KEEPS_OWNER: Failure = failed(
  "last-owner",
  "A team keeps an owner. Make somebody else owner first.",
);
