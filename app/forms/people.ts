import { z } from "zod";
import { LEAST_PASSWORD } from "../../core/settings/sign-in";

/** What the pages about people and their sign-ins send. */

const MOST_PASSWORD = 200;

export const EmailField = z
  .string()
  .trim()
  .max(200, "At most 200 characters.")
  .pipe(z.email("Write an email address, for example name@club.example."));

export const PasswordField = z
  .string()
  .min(LEAST_PASSWORD, `At least ${LEAST_PASSWORD} characters. Several words make a good one.`)
  .max(MOST_PASSWORD, `At most ${MOST_PASSWORD} characters.`)
  .refine((text) => new Set(text).size >= 4, "Not the same few characters over and over.");

const nameField = (words: string) =>
  z.string().trim().min(1, words).max(80, "At most 80 characters.");

export const PersonNameField = nameField("Write the name.");

export const ZoneField = z
  .string()
  .trim()
  .refine((zone) => {
    try {
      new Intl.DateTimeFormat("en", { timeZone: zone });
      return zone !== "";
    } catch {
      return false;
    }
  }, "Not a time zone. Write it as area and place, for example Europe/Oslo.");

export const TeamForm = z.object({
  team: nameField("Name the team."),
  zone: ZoneField,
  unit: z.enum(["kg", "lb"]),
});

export const FirstRunForm = TeamForm.extend({
  code: z.string().trim().min(1, "Type the code that the terminal printed.").max(40),
  name: PersonNameField,
  email: EmailField,
  password: PasswordField,
});

const emptyEmail = z.union([z.literal(""), EmailField]);

export const PeopleForm = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("invite"),
    name: PersonNameField,
    role: z.enum(["owner", "coach", "assistant"]),
    email: emptyEmail,
  }),
  z.object({
    intent: z.literal("invite-athlete"),
    athleteId: z.uuid("Choose an athlete."),
    email: emptyEmail,
  }),
  z.object({ intent: z.literal("withdraw"), invitationId: z.uuid() }),
  z.object({ intent: z.literal("link"), invitationId: z.uuid() }),
  z.object({
    intent: z.literal("role"),
    memberId: z.uuid(),
    role: z.enum(["owner", "coach", "assistant"]),
  }),
  z.object({ intent: z.literal("rename"), memberId: z.uuid(), name: PersonNameField }),
  z.object({ intent: z.literal("suspend"), memberId: z.uuid() }),
  z.object({ intent: z.literal("let-in"), memberId: z.uuid() }),
  z.object({ intent: z.literal("remove"), memberId: z.uuid() }),
  z.object({ intent: z.literal("reset"), memberId: z.uuid() }),
  TeamForm.extend({ intent: z.literal("team") }),
]);
export type PeopleChange = z.output<typeof PeopleForm>;

/** Somebody new, or somebody who signs in here already. */
export const JoinForm = z.discriminatedUnion("as", [
  z.object({
    as: z.literal("new"),
    name: PersonNameField,
    email: EmailField,
    password: PasswordField,
  }),
  z.object({
    as: z.literal("known"),
    email: EmailField,
    password: z.string().min(1, "Write your password.").max(MOST_PASSWORD),
  }),
  z.object({ as: z.literal("signed-in") }),
]);
export type Joining = z.output<typeof JoinForm>;

export const NewPasswordForm = z.object({ password: PasswordField });

export const ChangePasswordForm = z.object({
  current: z.string().min(1, "Write the password that you have now.").max(MOST_PASSWORD),
  password: PasswordField,
});

export const AskResetForm = z.object({ email: EmailField });
