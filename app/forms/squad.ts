import { z } from "zod";
import { DateField } from "./maxes";

/** What the page of the squads sends. */
const name = z.string().trim().min(1, "Name the squad.").max(60, "At most 60 characters.");
const sport = z.string().trim().max(60, "At most 60 characters.");
const roomId = z.uuid("Choose a room.");
const squadId = z.uuid();

export const SquadForm = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("make"), name, sport, roomId }),
  z.object({ intent: z.literal("change"), squadId, name, sport, roomId }),
  z.object({ intent: z.literal("up"), squadId }),
  z.object({ intent: z.literal("down"), squadId }),
  z.object({ intent: z.literal("archive"), squadId }),
  z.object({ intent: z.literal("back"), squadId }),
  z.object({
    intent: z.literal("competition"),
    squadId,
    name: z.string().trim().min(1, "Name the competition.").max(80),
    date: DateField,
  }),
  z.object({ intent: z.literal("drop-competition"), competitionId: z.uuid() }),
]);
export type SquadChange = z.output<typeof SquadForm>;
