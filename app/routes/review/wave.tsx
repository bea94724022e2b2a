import { Link } from "react-router";
import { signedMps } from "../../../core/review/equal-load";
import { formObject } from "../../forms/athlete";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { ReviewCallForm } from "../../forms/review-call";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { arrows, CallKeys, CallWords, DecidedLine } from "../../ui/call-keys";
import { Day } from "../../ui/dates";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { useKeys } from "../../ui/use-keys";
import { decideCall, takeBack } from "../../workflows/review/decide-call.server";
import { readWave, type WavePage } from "../../workflows/review/read-wave.server";
import type { Route } from "./+types/wave";
import { Became } from "./became";
import { WaveAxis } from "./wave-axis";
import { WaveOpened } from "./wave-opened";
import { SORTS, type Sort, sorted, WaveTable } from "./wave-table";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.page.wave?.name ?? "Waves"} · Sprezza` }];
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const get = (name: string) => url.searchParams.get(name) ?? "";
  return {
    page: await readWave(principal, {
      planId: idFrom(get("plan")),
      slotId: get("slot"),
      run: Number(get("run")) || 1,
      athleteId: idFrom(get("athlete")),
    }),
    mayDecide: mayWrite(principal, "/review/wave"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = ReviewCallForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) {
    const problems = fieldProblems(parsed.error);
    return { ok: false as const, message: Object.values(problems)[0] ?? "Look at the form." };
  }
  const principal = principalOf(context);
  return parsed.data.intent === "decide"
    ? decideCall(principal, parsed.data)
    : takeBack(principal, parsed.data.callId);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

/** A wave, reviewed: who responds, what it means, and what to decide. */
export default function WaveReview({ loaderData, actionData }: Route.ComponentProps) {
  const { page, mayDecide } = loaderData;
  const { wave } = page;
  const address = useAddress();
  const result = actionData as { ok: boolean; message?: string } | undefined;
  const problem = result && !result.ok ? result.message : undefined;
  if (!wave)
    return (
      <Page title="Waves">
        <Empty
          action={
            <Link className="btn btn-primary" to="/plan">
              Open the plans
            </Link>
          }
        >
          No wave has begun yet. As soon as a plan's lift is trained, its wave stands here.
        </Empty>
      </Page>
    );
  const sort = (address.get("sort") || "call") as Sort;
  const rows = sorted(page.rows ?? [], sort in SORTS ? sort : "call");
  const open = (athleteId: string) => address.setAll({ ...place(wave), sort, athlete: athleteId });
  return (
    <WavePageBody
      page={page}
      wave={wave}
      rows={rows}
      sort={sort}
      open={open}
      mayDecide={mayDecide}
      problem={problem}
    />
  );
}

type Wave = NonNullable<WavePage["wave"]>;

const place = (wave: Pick<Wave, "planId" | "slotId" | "run">) => ({
  plan: wave.planId,
  slot: wave.slotId,
  run: String(wave.run),
});

function WavePageBody({
  page,
  wave,
  rows,
  sort,
  open,
  mayDecide,
  problem,
}: {
  page: WavePage;
  wave: Wave;
  rows: ReturnType<typeof sorted>;
  sort: Sort;
  open: (athleteId: string) => void;
  mayDecide: boolean;
  problem: string | undefined;
}) {
  const unit = useUnit();
  const address = useAddress();
  const opened = page.opened;
  const step = (by: number) => {
    const at = rows.findIndex((row) => row.athleteId === opened?.athleteId);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))];
    if (next) open(next.athleteId);
  };
  const sorts = Object.keys(SORTS) as Sort[];
  useKeys(
    {
      ...arrows(step),
      x: () =>
        address.setAll({
          ...place(wave),
          athlete: opened?.athleteId ?? "",
          sort: sorts[(sorts.indexOf(sort) + 1) % sorts.length] ?? "call",
        }),
    },
    true,
  );
  return (
    <Page
      title={`${wave.name}, ${wave.squadName}`}
      facts={`${wave.liftName} · ${wave.from} to ${wave.to} · ${wave.metric}${wave.over ? "" : " · still running"}`}
      actions={
        <>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            Print
          </button>
          <Link className="btn no-print" to="/library/coach-set">
            Rule
          </Link>
          <Link className="btn no-print" to={`/plan/${wave.planId}?slot=${wave.slotId}`}>
            Open the plan
          </Link>
        </>
      }
      margin={
        opened ? (
          <WaveOpened
            key={opened.athleteId}
            opened={opened}
            wave={wave}
            mayDecide={mayDecide}
            problem={problem}
          />
        ) : undefined
      }
    >
      <Choosers page={page} wave={wave} sort={sort} />
      {page.moreBehind ? (
        <p className="text-sm text-muted">
          Earlier sessions are still being summed: load the page again for the rest.
        </p>
      ) : null}
      {wave.asks ? null : (
        <Notice kind="note" title="This wave asks nothing any more.">
          A newer wave of the lift speaks, or it ended over three weeks ago.
        </Notice>
      )}
      {(page.squadCalls ?? []).map((call) => (
        <section key={call.about} className="my-2 border-l-[3px] border-secondary pl-3">
          <CallWords call={call} unit={unit} />
          {call.decided ? (
            <DecidedLine decided={call.decided} keys={false} mayDecide={mayDecide} />
          ) : mayDecide ? (
            <CallKeys call={call} groupId={wave.groupId} keys={false} problem={undefined} />
          ) : null}
        </section>
      ))}
      <h2 className="mt-2">Change of speed at equal load, m/s a wave</h2>
      <Heard page={page} />
      <WaveAxis rows={rows} mean={page.waveMean} opened={opened?.athleteId} onOpen={open} />
      <h2 className="mt-4">Everybody</h2>
      <WaveTable rows={rows} opened={opened?.athleteId} onOpen={open} />
      <p className="mt-2 text-sm text-muted">
        Bars: 90 % of what the days leave open, the form of the day in it. ▲ rises, ▼ falls, ●
        unclear, × a set that was cut. Each athlete's speeds stand at one load, carried there by the
        own line.{" "}
        <span className="no-print">
          ↑ ↓ athlete, t take, c change, d decline, u take back, x sort.
        </span>
      </p>
      <Became rows={page.became ?? []} />
    </Page>
  );
}

/** What the wave comes to, in two sentences. */
function Heard({ page }: { page: WavePage }) {
  const rows = page.rows ?? [];
  const of = (verdict: string) =>
    rows.filter((row) => row.speed?.verdict === verdict).map((row) => row.name.split(" ")[0]);
  const [up, down, open] = [of("rises"), of("falls"), of("unclear")];
  const sets = rows.reduce((n, row) => n + row.setsDone, 0);
  const cut = rows.reduce((n, row) => n + row.cut, 0);
  const there = rows.reduce((n, row) => n + row.there, 0);
  const asked = rows.reduce((n, row) => n + row.sessions, 0);
  const { waveMean } = page;
  return (
    <p>
      {waveMean ? (
        <>
          The squad by this wave alone: <b>{signedMps(waveMean.estimate)} m/s</b> (90 %{" "}
          {signedMps(waveMean.low)} to {signedMps(waveMean.high)}).{" "}
        </>
      ) : null}
      {up.length > 0 ? (
        <>
          <b>{up.length}</b> respond: {up.join(", ")}.{" "}
        </>
      ) : null}
      {down.length > 0 ? (
        <>
          <b>{down.length}</b> fell: {down.join(", ")}.{" "}
        </>
      ) : null}
      <b>{open.length}</b> unclear.{" "}
      <span className="text-muted">
        {there} of {asked} sessions, {cut} of {sets} sets cut.
      </span>
    </p>
  );
}

function Choosers({ page, wave, sort }: { page: WavePage; wave: Wave; sort: Sort }) {
  const address = useAddress();
  const key = (one: Pick<Wave, "planId" | "slotId" | "run">) =>
    `${one.planId}/${one.slotId}/${one.run}`;
  return (
    <div className="no-print mb-2 flex flex-wrap items-end gap-4">
      <div className="w-[28rem] max-w-full">
        <PageSelect
          label="Wave"
          value={key(wave)}
          onChange={(event) => {
            const [plan = "", slot = "", run = "1"] = event.target.value.split("/");
            address.setAll({ plan, slot, run, sort, athlete: "" });
          }}
        >
          {page.waves.map((one) => (
            <option key={key(one)} value={key(one)}>
              <Day of={one.from} /> {one.name}
            </option>
          ))}
        </PageSelect>
      </div>
      <div className="w-40">
        <PageSelect
          label="Order"
          value={sort}
          onChange={(event) =>
            address.setAll({
              ...place(wave),
              athlete: page.opened?.athleteId ?? "",
              sort: event.target.value,
            })
          }
        >
          {Object.entries(SORTS).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </PageSelect>
      </div>
    </div>
  );
}
