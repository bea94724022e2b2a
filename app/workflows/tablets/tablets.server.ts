import { uuidv7 } from "uuidv7";
import {
  putItemAway,
  racksOf,
  saveItem,
  sensorAtRack,
  sensorPlace,
  sensorsAtRacks,
} from "../../../db/queries/gear.server";
import { frozenOf, runningSessions } from "../../../db/queries/sessions.server";
import { listRooms } from "../../../db/queries/squads.server";
import {
  keepTablet,
  listTablets,
  openPairing,
  revokeTablet,
  tryPairing,
} from "../../../db/queries/tablets.server";
import { localDate, now } from "../../platform/clock.server";
import { databases, inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { hashSecret, newPairingCode, newToken, sameHash } from "../../platform/rack-token.server";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

export const PAIRING_MINUTES = 5;
export const PAIRING_TRIES = 5;
/** Codes that are drawn until one has a handle that nobody else has open. */
const MOST_HANDLES = 20;

export function readTablets(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const rooms = await listRooms(tx);
    const racks = await racksOf(tx);
    const sensors = await sensorsAtRacks(tx);
    return {
      tablets: (await listTablets(tx)).map(({ pairedAt, zone, ...tablet }) => ({
        ...tablet,
        pairedOn: localDate(zone, pairedAt),
      })),
      racks: racks.map((rack) => ({
        id: rack.rackId,
        number: rack.number,
        roomName: rooms.find((room) => room.id === rack.roomId)?.name ?? "",
        label: `${rooms.find((room) => room.id === rack.roomId)?.name}, rack ${rack.number}`,
        sensor: sensors.get(sensorPlace(rack.roomId, rack.number)),
      })),
    };
  });
}

/** Puts a simulated sensor at a rack: any team can try the whole way without a device. */
export function trySensor(principal: Principal, rackId: string): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const at = (await racksOf(tx)).find((one) => one.rackId === rackId);
    if (!at) return failed("no-rack", "This rack is not in your team any more.");
    const there = await sensorAtRack(tx, at.roomId, at.number);
    if (there)
      return failed(
        "so-already",
        `${there.name} stands at this rack already. Put it away under Gear first.`,
      );
    await saveItem(tx, {
      id: uuidv7(),
      roomId: at.roomId,
      item: {
        kind: "sensor",
        name: `Simulated sensor ${at.number}`,
        count: 1,
        values: { by: "simulated", rate: 100, rack: at.number },
      },
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done(null);
  });
}

/** Takes a simulated sensor off again; one that measures is put away under Gear. */
export function endTrying(principal: Principal, rackId: string): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    const at = (await racksOf(tx)).find((one) => one.rackId === rackId);
    const there = at && (await sensorAtRack(tx, at.roomId, at.number));
    if (there?.by !== "simulated")
      return failed("none", "No simulated sensor stands at this rack any more.");
    const { today } = await readPlaces(tx);
    await putItemAway(tx, { kind: "sensor", id: there.id }, today);
    return done(null);
  });
}

/** Opens a pairing for a rack and gives the code to type on the tablet. */
export function startPairing(
  principal: Principal,
  rackId: string,
  makeCode = newPairingCode,
): Promise<Outcome<{ code: string; minutes: number }>> {
  return inTeam(principal, async (tx) => {
    const rack = (await racksOf(tx)).find((one) => one.rackId === rackId);
    if (!rack) return failed("no-rack", "This rack is not in your team any more.");
    const at = now();
    for (let i = 0; i < MOST_HANDLES; i++) {
      const { handle, secret } = makeCode();
      const row = {
        id: uuidv7(),
        rackId,
        roomId: rack.roomId,
        handle,
        secretHash: hashSecret(secret),
        triesLeft: PAIRING_TRIES,
        expiresAt: new Date(at.getTime() + PAIRING_MINUTES * 60_000),
        createdBy: principal.name,
      };
      if (await openPairing(tx, row, at))
        return done({ code: `${handle}-${secret}`, minutes: PAIRING_MINUTES });
    }
    return failed("no-handle", "Too many tablets are being paired just now. Try again shortly.");
  });
}

const WRONG =
  "This code does not open a rack. Codes work once, for five minutes. Ask a coach for a new one.";

/** Exchanges a code for the tablet's own token. */
export async function pairTablet(code: string): Promise<Outcome<{ token: string }>> {
  const match = /^\s*([A-Za-z]{3})[\s-]*(\d{6})\s*$/.exec(code);
  if (!match)
    return failed("shape", "A code is three letters and six digits, for example KTW-482913.");
  const pairing = await tryPairing(
    databases().auth.database,
    (match[1] as string).toUpperCase(),
    now(),
  );
  if (!pairing || !sameHash(pairing.secretHash, hashSecret(match[2] as string))) {
    return failed("wrong-code", WRONG);
  }
  const token = newToken();
  return inTeam({ teamId: pairing.teamId }, async (tx) => {
    const kept = await keepTablet(tx, pairing.id, {
      id: uuidv7(),
      roomId: pairing.roomId,
      rackId: pairing.rackId,
      name: "Rack tablet",
      tokenHash: hashSecret(token),
      pairedAt: now(),
    });
    return kept ? done({ token }) : failed("wrong-code", WRONG);
  });
}

export function takeTabletOff(principal: Principal, tabletId: string): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    const revoked = await revokeTablet(tx, tabletId, now());
    return revoked ? done(null) : failed("no-tablet", "This tablet was taken off already.");
  });
}

/** The running session that uses a tablet's rack. */
export function sessionAtRack(principal: Extract<Principal, { kind: "rack" }>) {
  return inTeam(principal, async (tx) => {
    for (const session of await runningSessions(tx)) {
      if (session.roomId !== principal.roomId) continue;
      const row = await frozenOf(tx, session.id);
      if (row?.frozen.stations.some((station) => station.id === principal.rackId))
        return session.id;
    }
    return undefined;
  });
}
