import { uuidv7 } from "uuidv7";
import { racksOf } from "../../../db/queries/gear.server";
import { keepSensor, sensorByToken } from "../../../db/queries/tablets.server";
import { packFrames, readFrameLines } from "../../../device/frame-lines";
import { now } from "../../platform/clock.server";
import { databases, inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { hashSecret, newToken } from "../../platform/rack-token.server";
import type { Principal } from "../../platform/rights";
import { passFrames } from "../../platform/sensor-frames.server";

/** A word for a sensor of one rack to send with; the one before stops working. Shown once. */
export function makeSensorToken(
  principal: Principal,
  rackId: string,
): Promise<Outcome<{ token: string; rackNumber: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const rack = (await racksOf(tx)).find((one) => one.rackId === rackId);
    if (!rack) return failed("no-rack", "This rack is not in your team any more.");
    const token = newToken();
    await keepSensor(tx, {
      id: uuidv7(),
      roomId: rack.roomId,
      rackId,
      name: `Sensor of rack ${rack.number}`,
      tokenHash: hashSecret(token),
      pairedAt: now(),
    });
    return done({ token, rackNumber: rack.number });
  });
}

/** Sensors by their token, for a moment: ten messages a second ask each time. */
const KNOWN_MS = 5000;
const MOST_KNOWN = 1000;
type Sensor = NonNullable<Awaited<ReturnType<typeof sensorByToken>>> & {
  rackNumber: number | undefined;
};
const knownSensors = new Map<string, { sensor: Sensor | undefined; atMs: number }>();

async function sensorOf(token: string): Promise<Sensor | undefined> {
  const hash = hashSecret(token);
  const nowMs = Date.now();
  const before = knownSensors.get(hash);
  if (before && nowMs - before.atMs < KNOWN_MS) return before.sensor;
  const found = await sensorByToken(databases().auth.database, hash);
  const racks = found ? await inTeam({ teamId: found.teamId }, (tx) => racksOf(tx)) : [];
  const rackNumber = racks.find((one) => one.rackId === found?.rackId)?.number;
  const sensor = found && { ...found, rackNumber };
  knownSensors.delete(hash);
  knownSensors.set(hash, { sensor, atMs: nowMs });
  const [oldest] = knownSensors.keys();
  if (knownSensors.size > MOST_KNOWN && oldest !== undefined) knownSensors.delete(oldest);
  return sensor;
}

/**
 * Takes a message of a sensor.
 * @param input `rack` is the number that the sensor thinks it stands at; `boot` names its process
 */
export async function takeFrames(input: {
  token: string;
  boot: string;
  rack: number | undefined;
  text: string;
}): Promise<Outcome<{ taken: number; bad: number }>> {
  const sensor = await sensorOf(input.token);
  if (!sensor)
    return failed("no-token", "This token sends for no rack. Ask for one under Tablets.");
  const { teamId, rackId, rackNumber } = sensor;
  if (input.rack !== undefined && rackNumber !== undefined && rackNumber !== input.rack)
    return failed(
      "wrong-rack",
      `This token is rack ${rackNumber}'s, and the sensor was started for rack ${input.rack}. Nothing was taken.`,
    );
  const { frames, bad } = readFrameLines(input.text);
  const passed = await passFrames({ teamId, rackId, boot: input.boot }, packFrames(frames));
  if (passed === "other")
    return failed(
      "two-sensors",
      "Another sensor sends for this rack. Stop one of them; this one is taken when the other is silent.",
    );
  return done({ taken: frames.length, bad });
}

/** Whether a rack is the reader's to follow: of their team, and of a tablet its own room. */
export function mayFollowRack(principal: Principal, rackId: string): Promise<boolean> {
  return inTeam(principal, async (tx) => {
    const rack = (await racksOf(tx)).find((one) => one.rackId === rackId);
    return rack !== undefined && (principal.kind !== "rack" || rack.roomId === principal.roomId);
  });
}
