import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import { findPrincipal } from "../../platform/principal.server";
import { newPairingCode, RACK_COOKIE } from "../../platform/rack-token.server";
import type { Principal } from "../../platform/rights";
import {
  PAIRING_TRIES,
  pairTablet,
  readTablets,
  sessionAtRack,
  startPairing,
  takeTabletOff,
} from "./tablets.server";

let team: SecondTeam;
let owner: Principal;
let admin: postgres.Sql;

beforeAll(async () => {
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
  });
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Tablet Team");
  owner = {
    kind: "person",
    userId: "u",
    teamId: team.teamId,
    role: "owner",
    name: "Owner",
    athleteId: undefined,
  };
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

async function code(): Promise<string> {
  const result = await startPairing(owner, team.rackId);
  if (!result.ok) throw new Error(result.message);
  return result.value.code;
}

const asked = (token: string) =>
  findPrincipal(new Request("http://here/", { headers: { cookie: `${RACK_COOKIE}=${token}` } }));

const wrong = (right: string) => `${right.slice(0, 4)}${right.endsWith("0") ? "111111" : "000000"}`;

it("draws another code where a handle is open for a rack of another team", async () => {
  const others = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Same Handle");
  const taken = await startPairing({ ...owner, teamId: others.teamId }, others.rackId);
  if (!taken.ok) throw new Error(taken.message);
  const drawn = [taken.value.code.slice(0, 3), "ZZZ"].map((handle) => ({
    handle,
    secret: "123456",
  }));
  const opened = await startPairing(owner, team.rackId, () => drawn.shift() ?? newPairingCode());
  expect(opened).toMatchObject({ ok: true, value: { code: "ZZZ-123456" } });
  expect(await pairTablet(taken.value.code)).toMatchObject({ ok: true });
});

describe("pairing", () => {
  it("gives the tablet a token of its own, for one room and rack", async () => {
    const paired = await pairTablet(await code());
    if (!paired.ok) throw new Error(paired.message);
    const principal = await asked(paired.value.token);
    expect(principal).toMatchObject({
      kind: "rack",
      teamId: team.teamId,
      roomId: team.roomId,
      rackId: team.rackId,
      revokedAt: undefined,
    });
    if (principal?.kind === "rack") expect(await sessionAtRack(principal)).toBe(team.sessionId);
  });

  it("keeps only a hash of the token and of the code's secret half", async () => {
    const open = await code();
    const [pairing] = await admin`SELECT * FROM device_pairing WHERE team_id = ${team.teamId}`;
    expect(JSON.stringify(pairing)).not.toContain(open.slice(4));
    const paired = await pairTablet(open);
    if (!paired.ok) throw new Error(paired.message);
    const rows = await admin`SELECT * FROM rack_device WHERE team_id = ${team.teamId}`;
    expect(JSON.stringify(rows)).not.toContain(paired.value.token);
  });

  it("works once", async () => {
    const open = await code();
    expect(await pairTablet(open)).toMatchObject({ ok: true });
    expect(await pairTablet(open)).toMatchObject({ ok: false, code: "wrong-code" });
  });

  it("reads a code however it is typed, and says what a code looks like", async () => {
    const open = await code();
    expect(await pairTablet(` ${open.toLowerCase().replace("-", " ")} `)).toMatchObject({
      ok: true,
    });
    expect(await pairTablet("12345")).toMatchObject({ ok: false, code: "shape" });
  });

  it("dies after five wrong tries, even with the right code", async () => {
    const open = await code();
    for (let i = 0; i < PAIRING_TRIES; i++) {
      expect(await pairTablet(wrong(open))).toMatchObject({ ok: false, code: "wrong-code" });
    }
    expect(await pairTablet(open)).toMatchObject({ ok: false, code: "wrong-code" });
  });

  it("lets the fifth try still succeed", async () => {
    const open = await code();
    for (let i = 0; i < PAIRING_TRIES - 1; i++) await pairTablet(wrong(open));
    expect(await pairTablet(open)).toMatchObject({ ok: true });
  });

  it("is too late after five minutes", async () => {
    const open = await code();
    await admin`UPDATE device_pairing SET expires_at = expires_at - interval '6 minutes'
      WHERE team_id = ${team.teamId}`;
    expect(await pairTablet(open)).toMatchObject({ ok: false, code: "wrong-code" });
  });

  it("replaces an older open code of the same rack", async () => {
    const older = await code();
    const newer = await code();
    expect(await pairTablet(older)).toMatchObject({ ok: false });
    expect(await pairTablet(newer)).toMatchObject({ ok: true });
  });

  it("is refused for a rack of another team", async () => {
    const other = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Other Tablet Team");
    expect(await startPairing(owner, other.rackId)).toMatchObject({ ok: false, code: "no-rack" });
  });
});

describe("taking a tablet off", () => {
  it("marks it revoked, once, and it is known as such", async () => {
    const paired = await pairTablet(await code());
    if (!paired.ok) throw new Error(paired.message);
    const principal = await asked(paired.value.token);
    const deviceId = principal?.kind === "rack" ? principal.deviceId : "";
    expect(await takeTabletOff(owner, deviceId)).toMatchObject({ ok: true });
    expect(await takeTabletOff(owner, deviceId)).toMatchObject({ ok: false });
    expect(await asked(paired.value.token)).toMatchObject({ revokedAt: expect.any(Date) });
    const { tablets } = await readTablets(owner);
    expect(tablets.find((tablet) => tablet.id === deviceId)?.revokedAt).not.toBeNull();
  });

  it("knows no made-up token", async () => {
    expect(await asked("made-up")).toBeUndefined();
    expect(await findPrincipal(new Request("http://here/"))).toBeUndefined();
  });
});
