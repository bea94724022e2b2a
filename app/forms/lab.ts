import { z } from "zod";

/** The bench's tools, by the name that stands in the address. */
export const TOOL_IDS = [
  "plates",
  "sequence",
  "max",
  "methods",
  "speed",
  "time",
  "resistance",
  "box",
  "photo",
  "front",
  "rest",
  "tonnage",
  "width",
  "jumps",
  "restspeed",
  "share",
  "complex",
  "lowering",
  "video",
  "force",
] as const;
export type ToolId = (typeof TOOL_IDS)[number];

const TARGET = /^(athlete|plan):([0-9a-f-]{36})$/;

/**
 * An answer on its way to an athlete or a plan. The state is the tool's fields as they stand in
 * the address: numbers, never a person's id.
 */
export const AnswerForm = z.object({
  tool: z.enum(TOOL_IDS),
  state: z
    .string()
    .max(2000, "Too much stands in the fields to be sent.")
    .refine((text) => !/(^|&)(athlete|name)=/.test(text), "Send numbers, not a name."),
  answer: z.string().trim().min(1, "There is no answer yet: fill the fields first.").max(300),
  target: z
    .string()
    .regex(TARGET, "Choose an athlete or a plan.")
    .transform((text) => {
      const [, kind, id] = TARGET.exec(text) as RegExpExecArray;
      return { kind: kind as "athlete" | "plan", id: id as string };
    }),
});
export type AnswerForm = z.output<typeof AnswerForm>;
