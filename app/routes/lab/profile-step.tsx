import { Suspense, useState } from "react";
import { describeSide, loadBar } from "../../../core/barload/load";
import { rimOnBar } from "../../../core/barload/plate-rim";
import { isFirstTime } from "../../../core/maxes/records";
import { formatKg, massKg, readMass } from "../../../core/units/mass";
import type { VelocityMetric } from "../../../core/units/velocity";
import { formatVelocity } from "../../../core/units/velocity";
import { readSpeed } from "../../forms/speed";
import { filmPart } from "../../ui/clip/film-part";
import { Field } from "../../ui/field";
import { LoadedBar } from "../../ui/loaded-bar";
import { Notice } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { Figure } from "../../ui/working";
import type { Route } from "./+types/profile";
import type { ProfileTestRun } from "./use-profile-test";

/** Comes when somebody opens it. */
const Film = filmPart(async () => (await import("../../workers/clip")).clip);

/** The load on the bar now: suggested steps, the guard, and the two ways to take a rep. */
export function Step({
  run,
  data,
  steps,
  metric,
}: {
  run: ProfileTestRun;
  data: Route.ComponentProps["loaderData"];
  steps: Route.ComponentProps["loaderData"]["steps"];
  metric: VelocityMetric;
}) {
  const unit = useUnit();
  const [at, setAt] = useState(0);
  const [own, setOwn] = useState("");
  const [speed, setSpeed] = useState("");
  const [problem, setProblem] = useState<string>();
  const [allowed, setAllowed] = useState<number>();
  const [filmed, setFilmed] = useState(false);
  const typed = readMass(own, unit);
  const step = steps[Math.min(at, steps.length - 1)];
  const askedKg = own === "" ? step?.loadKg : typed.ok ? massKg(typed.mass) : undefined;
  const loading = askedKg === undefined ? undefined : loadBar(data.rack.gear, askedKg, "nearest");
  const loadKg = loading?.ok ? loading.totalKg : undefined;
  const firstTime = loadKg !== undefined && isFirstTime(loadKg, data.bestKg);
  const held = firstTime && allowed !== loadKg;
  const capKg = data.cap !== undefined && data.max ? (data.cap / 100) * data.max.kg : undefined;
  const overCap = capKg !== undefined && loadKg !== undefined && loadKg > capKg + 1e-9;
  const here = run.profileReps.filter((rep) => rep.loadKg === loadKg);
  const wanted = own === "" ? (step?.reps ?? 2) : 2;

  const enter = () => {
    const velocity = readSpeed(speed);
    if (velocity === undefined || loadKg === undefined) {
      setProblem("A speed from 0.05 to 4 m/s: 82 or 0.82.");
      return;
    }
    setProblem(undefined);
    setSpeed("");
    run.type(loadKg, velocity);
  };
  return (
    <section aria-label="The load now">
      <fieldset className="flex flex-wrap gap-1">
        <legend className="sr-only">Steps</legend>
        {steps.map((one, i) => {
          const taken = run.profileReps.filter((rep) => rep.loadKg === one.loadKg).length;
          return (
            <button
              key={one.loadKg}
              type="button"
              aria-pressed={own === "" && i === at}
              className={`btn min-h-11 px-2 ${own === "" && i === at ? "btn-primary" : ""}`}
              onClick={() => {
                setAt(i);
                setOwn("");
              }}
            >
              {formatKg(one.loadKg, unit, 1)}
              {taken > 0 ? ` ✓${taken}` : ""}
            </button>
          );
        })}
      </fieldset>
      <div className="mt-2">
        <Field
          label="Another load"
          value={own}
          placeholder="87.5 or 190 lb"
          onChange={(event) => setOwn(event.target.value)}
          problem={
            own !== "" && !typed.ok
              ? "A load, for example 87.5."
              : loading && !loading.ok
                ? "This rack cannot build that."
                : undefined
          }
        />
      </div>
      {loading?.ok ? (
        <>
          <p className="mt-2 text-4xl font-bold" data-testid="test-load">
            {formatKg(loading.totalKg, unit, 2)}
          </p>
          <p className="text-muted">
            {data.max && data.trusted ? (
              <Figure id="bench/max" working={data.max.working}>
                {((100 * loading.totalKg) / data.max.kg).toFixed(0)} % of{" "}
                {formatKg(data.max.kg, unit, 1)}
              </Figure>
            ) : (
              "no trusted max"
            )}{" "}
            · each side {describeSide(loading.side.plates)}
          </p>
          <LoadedBar side={loading.side.plates} added={0} width={420} height={100} />
        </>
      ) : null}
      {overCap ? (
        <Notice kind="warning" title={`Over this athlete's ${data.cap} % limit.`}>
          An instruction caps the load at {formatKg(capKg ?? 0, unit, 1)}.
        </Notice>
      ) : null}
      {held && loadKg !== undefined ? (
        <Notice
          kind="warning"
          title={`First time at ${formatKg(loadKg, unit, 1)}: the best so far is ${formatKg(data.bestKg ?? 0, unit, 1)}.`}
        >
          <p>Ask the athlete first. Stopping here is a note, not a failure.</p>
          <button type="button" className="btn mt-1 min-h-11" onClick={() => setAllowed(loadKg)}>
            Asked: go on
          </button>
        </Notice>
      ) : loadKg !== undefined ? (
        <div className="mt-2 grid gap-2">
          {data.sensor ? (
            run.lifting ? (
              <button type="button" className="btn min-h-16 text-lg" onClick={run.stop}>
                Stop
              </button>
            ) : (
              <button
                type="button"
                className="btn btn-primary min-h-16 text-lg"
                onClick={() => run.lift(loadKg, wanted)}
              >
                Lift {wanted} (simulated sensor)
              </button>
            )
          ) : (
            <p className="text-sm text-muted">No sensor for this athlete and lift: type speeds.</p>
          )}
          <form
            className="flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              enter();
            }}
          >
            <Field
              label={`Speed of a rep, ${metric}`}
              value={speed}
              inputMode="decimal"
              placeholder="82 or 0.82"
              problem={problem}
              onChange={(event) => setSpeed(event.target.value)}
            />
            <button type="submit" className="btn min-h-9">
              Add
            </button>
          </form>
          <p aria-live="polite" className="min-h-6 font-bold">
            {here.length > 0
              ? `${here.length} here, fastest ${formatVelocity(Math.max(...here.map((rep) => rep.velocityMps)))} m/s`
              : ""}
          </p>
          <details onToggle={(event) => setFilmed(event.currentTarget.open)}>
            <summary className="link">Measure a film of this load</summary>
            {filmed ? (
              <Suspense fallback={<p className="text-muted">The film's part is being opened.</p>}>
                <Film
                  key={loadKg}
                  startsAt={data.variant.start}
                  bar={{
                    rim: rimOnBar(loading?.ok ? loading.side.plates : [], data.rack.gear.plates),
                    way: data.way,
                  }}
                  keep={{
                    label: "These reps are of this load",
                    onKeep: (reps) => run.film(loadKg, reps),
                  }}
                />
              </Suspense>
            ) : null}
          </details>
          {at < steps.length - 1 && own === "" ? (
            <button
              type="button"
              className="btn min-h-11"
              disabled={run.lifting}
              onClick={() => setAt(at + 1)}
            >
              Next load: {formatKg(steps[at + 1]?.loadKg ?? 0, unit, 1)}
            </button>
          ) : null}
        </div>
      ) : null}
      <p className="mt-2 text-sm text-muted">{data.variant.caution}</p>
    </section>
  );
}
