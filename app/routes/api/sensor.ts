import { z } from "zod";
import { takeFrames } from "../../workflows/tablets/sensor.server";
import type { Route } from "./+types/sensor";

const STATUS: Readonly<Record<string, number>> = {
  "no-token": 401,
  "wrong-rack": 409,
  "two-sensors": 409,
};

const Facts = z.object({
  rack: z.coerce.number().int().min(1).max(10_000).optional(),
  boot: z
    .string()
    .regex(/^[\w-]{1,60}$/)
    .default("one"),
});

/** Frames of a rack's sensor, as docs/sensor-protocol.md has them. The token is the right. */
export async function action({ request }: Route.ActionArgs) {
  const token = /^Bearer (\S{1,200})$/.exec(request.headers.get("authorization") ?? "")?.[1];
  const refused = (status: number, message: string) =>
    Response.json({ ok: false, message }, { status });
  if (token === undefined) return refused(401, "A sensor sends its token: authorization: Bearer …");
  const facts = Facts.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!facts.success) return refused(400, "`rack` is a number, `boot` up to 60 letters.");
  const text = await request.text().catch(() => undefined);
  if (text === undefined) return refused(400, "The frames did not come whole. Send them again.");
  const result = await takeFrames({
    token,
    boot: facts.data.boot,
    rack: facts.data.rack,
    text,
  });
  return result.ok
    ? Response.json({ ok: true, ...result.value })
    : refused(STATUS[result.code] ?? 400, result.message);
}
