import { Link } from "react-router";
import { BOX_STYLES, CONTACTS, SPINE_CAUTION, styleById } from "../../../core/boxsquat/styles";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { BoxSetupForm, FaultForm, FoundWeightForm, TrialForm } from "../../forms/box";
import { fieldProblems } from "../../forms/recipe";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { Figure, Figures } from "../../ui/working";
import { type BoxCard, readBoxCard } from "../../workflows/athletes/box-card.server";
import {
  keepBoxSetup,
  keepFoundWeight,
  keepTrial,
  noteFault,
  tickRehearsal,
} from "../../workflows/athletes/save-box.server";
import type { Route } from "./+types/box-card";
import { Faults, Ladder } from "./box-history";
import { SpeedWeight } from "./speed-weight";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.card.person.name ?? "Box"} on the box · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const found = await readBoxCard(principal, params.athleteId);
  if (!found.ok) throw notThere(found);
  return { card: found.value, mayEdit: mayWrite(principal, "/athletes/:athleteId/box") };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const principal = principalOf(context);
  const fields = formObject(await readForm(request));
  const intent = fields.intent ?? "";
  if (intent === "rehearsed")
    return { intent, ...(await tickRehearsal(principal, params.athleteId)) };
  if (intent === "trial") {
    const parsed = TrialForm.safeParse(fields);
    if (!parsed.success)
      return { intent, ok: false as const, problems: fieldProblems(parsed.error) };
    return { intent, ...(await keepTrial(principal, params.athleteId, parsed.data)) };
  }
  if (intent === "fault") {
    const parsed = FaultForm.safeParse(fields);
    if (!parsed.success)
      return { intent, ok: false as const, problems: fieldProblems(parsed.error) };
    return { intent, ...(await noteFault(principal, params.athleteId, parsed.data)) };
  }
  if (intent === "found") {
    const parsed = FoundWeightForm.safeParse(fields);
    if (!parsed.success)
      return { intent, ok: false as const, message: parsed.error.issues[0]?.message };
    return { intent, ...(await keepFoundWeight(principal, params.athleteId, parsed.data)) };
  }
  const parsed = BoxSetupForm.safeParse(fields);
  if (!parsed.success) return { intent, ok: false as const, problems: fieldProblems(parsed.error) };
  return { intent, ...(await keepBoxSetup(principal, params.athleteId, parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

type Result =
  | { intent: string; ok: boolean; message?: string; problems?: Record<string, string> }
  | undefined;

const VERDICTS = { allowed: "allowed", accessory: "as accessory", refused: "refused" } as const;

/** One athlete on the box: the card as it hangs at the rack, and what it stands on. */
export default function BoxCardPage({ loaderData, actionData }: Route.ComponentProps) {
  const unit = useUnit();
  const { card, mayEdit } = loaderData;
  const { person } = card;
  const result = actionData as Result;
  const problems = result?.problems ?? {};
  return (
    <Page
      title={`${person.name} on the box`}
      facts={card.variant?.name ?? "No box squat among the lift variants yet."}
      actions={
        <>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            Print the card
          </button>
          <Link className="btn no-print" to={`/athletes/${person.id}`}>
            All of {person.name}
          </Link>
        </>
      }
      margin={
        <div className="no-print grid gap-4">
          <Ladder card={card} />
          <section aria-labelledby="depth">
            <h2 id="depth">Depth, {card.depth.weeks} weeks</h2>
            <p className={card.depth.enough ? "text-muted" : "text-accent"}>{card.depth.words}</p>
          </section>
          {card.fromFree?.ok ? (
            <Figures label="Box from free">
              <h2>Load from the free squat</h2>
              <p>
                <Figure id="box/from-free" working={card.fromFree.working}>
                  {card.fromFree.own
                    ? formatKg(card.fromFree.leastKg, unit, 1)
                    : `${formatKg(card.fromFree.leastKg, unit, 1)} to ${formatKg(card.fromFree.mostKg, unit, 1)}`}
                </Figure>
              </p>
              <p className="text-sm text-muted">The coach confirms it.</p>
            </Figures>
          ) : null}
        </div>
      }
    >
      {result && !result.ok && result.message ? (
        <Notice kind="problem" title={result.message} />
      ) : null}
      <SetupCard card={card} mayEdit={mayEdit} />
      {mayEdit && card.variant ? (
        <Form
          method="post"
          aria-label="Trial seat"
          key={`${card.setup?.boxSeatCm}/${card.setup?.boxCreaseCm}`}
          className="no-print mt-3 flex flex-wrap items-end gap-3"
        >
          <input type="hidden" name="variantId" value={card.variant.id} />
          <div className="w-44">
            <Field
              label="Trial: seated at, cm"
              name="boxSeatCm"
              inputMode="decimal"
              defaultValue={card.setup?.boxSeatCm ?? ""}
              problem={problems.boxSeatCm}
            />
          </div>
          <div className="w-64">
            <Field
              label="crease over the knee (− under), cm"
              name="boxCreaseCm"
              inputMode="decimal"
              defaultValue={card.setup?.boxCreaseCm ?? ""}
              problem={problems.boxCreaseCm}
            />
          </div>
          <button type="submit" name="intent" value="trial" className="btn">
            Keep the trial
          </button>
          <Link className="self-center underline" to="/lab?tool=photo">
            Measure it on a side photo
          </Link>
          <Link className="self-center underline" to="/lab?tool=front">
            Shins and knees on a front photo
          </Link>
        </Form>
      ) : null}
      <section aria-labelledby="styles" className="no-print mt-5">
        <h2 id="styles">Styles, by {card.school || "no school"}</h2>
        <table className="ledger max-w-4xl">
          <tbody>
            {card.styles.map((one) => {
              const style = styleById(one.id);
              return (
                <tr key={one.id}>
                  <th scope="row" className="!text-base-content">
                    {style?.name}
                  </th>
                  <td
                    className={`whitespace-nowrap font-medium ${one.verdict === "refused" ? "text-accent" : one.verdict === "accessory" ? "text-secondary" : ""}`}
                  >
                    {VERDICTS[one.verdict]}
                  </td>
                  <td className="text-muted">
                    {one.reasons.length > 0 ? one.reasons.join(" ") : style?.assumes}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </section>
      {mayEdit && card.variant ? (
        <Form
          method="post"
          aria-label="Set-up on the box"
          key={card.box?.id ?? "new"}
          className="no-print mt-5 grid max-w-4xl gap-3 sm:grid-cols-3"
        >
          <h2 className="sm:col-span-3">A new set-up</h2>
          <Select
            label="Variant"
            name="variantId"
            defaultValue={card.variant.id}
            problem={problems.variantId}
          >
            {card.variants.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
          <Select label="Style" name="styleId" defaultValue={card.box?.styleId ?? "wide"}>
            {BOX_STYLES.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
          <Select label="Contact" name="contact" defaultValue={card.box?.contact ?? "weight"}>
            {Object.entries(CONTACTS).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
          <Field
            label="Heel to box, cm"
            name="distanceCm"
            inputMode="decimal"
            defaultValue={card.box?.distanceCm ?? ""}
            problem={problems.distanceCm}
          />
          <div className="sm:col-span-2">
            <Field
              label="Cues, apart by semicolons"
              name="cues"
              defaultValue={
                card.box?.cues || styleById(card.box?.styleId ?? "wide")?.cues.join("; ")
              }
            />
          </div>
          <div className="sm:col-span-2">
            <Field
              label="Note, where a refused style is done all the same"
              name="styleNote"
              defaultValue={card.box?.styleNote ?? ""}
            />
          </div>
          <label className="flex items-center gap-2 self-end pb-2">
            <input
              type="checkbox"
              name="freeSquatSigned"
              defaultChecked={card.box?.freeSquatSigned}
              className="checkbox checkbox-sm border-control"
            />
            free squat signed off
          </label>
          <button type="submit" name="intent" value="setup" className="btn justify-self-start">
            Keep this set-up
          </button>
        </Form>
      ) : null}
      <Faults card={card} mayEdit={mayEdit} />
      {mayEdit && card.variant ? <SpeedWeight card={card} variant={card.variant} /> : null}
    </Page>
  );
}

/** The card: readable at arm's length, and as it is printed. */
function SetupCard({ card, mayEdit }: { card: BoxCard; mayEdit: boolean }) {
  const { setup, box, seat } = card;
  const style = styleById(box?.styleId);
  const build =
    seat?.answer.ok === true
      ? seat.answer.build
      : seat && "nearest" in seat.answer
        ? seat.answer.nearest
        : undefined;
  const cues = box?.cues ? box.cues.split(";").map((one) => one.trim()) : (style?.cues ?? []);
  const row = (name: string, value: React.ReactNode) => (
    <div className="flex justify-between gap-4 border-b border-faint py-1">
      <dt className="text-muted">{name}</dt>
      <dd className="text-right font-bold">{value}</dd>
    </div>
  );
  return (
    <section aria-label="Set-up card" className="max-w-4xl border-y-2 border-base-content py-3">
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-[16rem_1fr]">
        <div>
          <p className="text-muted">Box{card.roomName ? `, ${card.roomName}` : ""}</p>
          {build ? (
            <>
              <p className="text-[3.5rem] leading-none font-bold tabular-nums">
                {plainNumber(build.heightCm, 1)}
                <span className="text-[1.2rem] font-normal"> cm</span>
              </p>
              <p className="mt-1 text-[1.15rem]">{seat?.words}</p>
              <p className={seat?.answer.ok ? "text-muted" : "text-accent"}>
                wanted {plainNumber(seat?.targetCm ?? 0, 1)} cm
                {seat?.answer.ok
                  ? ""
                  : `; nothing fits, this is the nearest, ${plainNumber(Math.abs(build.offCm), 1)} cm ${build.offCm > 0 ? "high" : "low"}`}
              </p>
              {build.base.substitute ? (
                <p className="text-secondary">{build.base.substitute.caution}</p>
              ) : null}
            </>
          ) : (
            <p className="text-secondary">
              No trial seat yet. Seat the athlete, measure crease over knee, and write it below.
            </p>
          )}
        </div>
        <dl className="text-[1.15rem]">
          {row("Style", style ? style.name : "not chosen")}
          {row("Contact", box ? CONTACTS[box.contact] : "–")}
          {row("Stance", setup?.stance || "–")}
          {card.breathing ? row("Breath", card.breathing) : null}
          {row("Hooks", setup?.hook || "–")}
          {row("Safeties", setup?.safety || "–")}
          {row(
            "Heel to box",
            box?.distanceCm == null ? "–" : `${plainNumber(box.distanceCm, 1)} cm`,
          )}
        </dl>
      </div>
      {cues.length > 0 ? (
        <ul className="mt-2 flex flex-wrap gap-x-6 text-[1.25rem] font-bold">
          {cues.map((cue) => (
            <li key={cue}>{cue}</li>
          ))}
        </ul>
      ) : null}
      {card.instructions.map((text) => (
        <p key={text} className="mt-1 font-bold text-secondary">
          {text}
        </p>
      ))}
      {box?.styleNote ? <p className="mt-1 text-secondary">Set aside: {box.styleNote}</p> : null}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {!box ? null : box.rehearsedOn ? (
          <p>
            ✓ Rehearsed with the empty bar <Day of={box.rehearsedOn} />, {box.rehearsedBy}
          </p>
        ) : (
          <>
            <p className="text-accent">
              Not rehearsed: two steps with the empty bar before the first loaded set.
            </p>
            {mayEdit ? (
              <Form method="post" className="no-print">
                <button type="submit" name="intent" value="rehearsed" className="btn min-h-11">
                  Rehearsed
                </button>
              </Form>
            ) : null}
          </>
        )}
      </div>
      <p className="mt-2 text-sm text-muted">{SPINE_CAUTION}</p>
    </section>
  );
}
