import { z } from "zod";

/** What the page of the first hour sends. */
const step = z.enum(["school", "room", "squads", "athletes", "maxes", "plan", "tablets"]);

export const FirstHourForm = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("school"), schoolId: z.uuid("Choose a school.") }),
  z.object({ intent: z.literal("aside"), step }),
  z.object({ intent: z.literal("take-up"), step }),
  z.object({ intent: z.literal("leave") }),
]);
