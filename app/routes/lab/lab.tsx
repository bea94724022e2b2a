import { type ComponentType, useCallback, useEffect, useRef, useState } from "react";
import { Link, useLocation } from "react-router";
import { plainNumber } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { AnswerForm, type ToolId } from "../../forms/lab";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { resultOf } from "../../ui/adder";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import { readBench } from "../../workflows/lab/read-bench.server";
import { sendAnswer } from "../../workflows/lab/send-answer.server";
import type { Route } from "./+types/lab";
import { FillFrom } from "./fill-from";
import { SendTo } from "./send-to";
import { BoxStack } from "./tools/box-stack";
import { ComplexLength } from "./tools/complex-length";
import { AnswerProvider } from "./tools/fields";
import { ForceOfTwo } from "./tools/force-of-two";
import { FrontPhoto } from "./tools/front-photo";
import { LoadedJumps } from "./tools/loaded-jumps";
import { Lowering } from "./tools/lowering";
import { MaxFromSet } from "./tools/max-from-set";
import { Methods } from "./tools/methods";
import { Plates } from "./tools/plates";
import { RepTime } from "./tools/rep-time";
import { Resistance } from "./tools/resistance";
import { RestSpeed } from "./tools/rest-speed";
import { Rests } from "./tools/rests";
import { Sequence } from "./tools/sequence";
import { Share } from "./tools/share";
import { SidePhoto } from "./tools/side-photo";
import { SpeedLoad } from "./tools/speed-load";
import { TestWidthTool } from "./tools/test-width";
import { Tonnage } from "./tools/tonnage";
import type { BenchFacts, ToolProps } from "./tools/tool";
import { VideoSpeed } from "./tools/video";

export function meta() {
  return [{ title: "Lab · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { bench: await readBench(principal), maySend: mayWrite(principal, "/lab") };
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = AnswerForm.safeParse(formObject(await readForm(request)));
  const intent = "send";
  if (!parsed.success) {
    return { ok: false as const, intent, message: parsed.error.issues[0]?.message };
  }
  return { intent, ...(await sendAnswer(principalOf(context), parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof keepOnFilter>[0]) {
  return keepOnFilter(args) && revalidateUnlessFailed(args);
}

const text = (value: number | undefined) => (value === undefined ? "" : plainNumber(value, 3));

/** A measured rep as its field has it: load, mean force, mean power, speed. */
const repText = (rep: BenchFacts["lightest"]) =>
  rep
    ? [rep.loadKg, rep.forceN ?? 0, rep.powerW ?? 0, rep.velocityMps]
        .map((one) => plainNumber(one, 3))
        .join(" ")
    : "";

interface Tool {
  id: ToolId;
  name: string;
  tool: ComponentType<ToolProps>;
  /** What an athlete brings to its fields. */
  fill?: (facts: BenchFacts) => Record<string, string>;
}

/** The tools of the bench, in the order in which a coach asks. */
const TOOLS: readonly Tool[] = [
  {
    id: "plates",
    name: "Percent and plates",
    tool: Plates,
    fill: (facts) => ({ max: text(facts.maxKg) }),
  },
  { id: "sequence", name: "Plate moves", tool: Sequence },
  { id: "max", name: "Max from a set", tool: MaxFromSet },
  {
    id: "methods",
    name: "Ways to set a load",
    tool: Methods,
    fill: (facts) => ({
      max: text(facts.maxKg),
      points: facts.points,
      force: text(facts.peakForceMps),
      power: text(facts.peakPowerKg),
    }),
  },
  {
    id: "speed",
    name: "Speed and load",
    tool: SpeedLoad,
    fill: (facts) => ({ max: text(facts.maxKg), points: facts.points }),
  },
  { id: "time", name: "Rep time", tool: RepTime },
  {
    id: "resistance",
    name: "Bands and chains",
    tool: Resistance,
    fill: (facts) => ({
      max: text(facts.maxKg),
      bottom: text(facts.bottomM),
      lockout: text(facts.lockoutM),
      measured: facts.heightsMeasured || facts.bottomM === undefined ? "" : "no",
      upper: facts.upperBody ? "yes" : "",
    }),
  },
  {
    id: "box",
    name: "Box stack",
    tool: BoxStack,
    fill: (facts) => ({ seat: text(facts.boxSeatCm), crease: text(facts.boxCreaseCm) }),
  },
  { id: "photo", name: "Side photo", tool: SidePhoto },
  { id: "front", name: "Front photo", tool: FrontPhoto },
  { id: "video", name: "Video speed", tool: VideoSpeed },
  { id: "rest", name: "Rest and groups", tool: Rests },
  { id: "tonnage", name: "Tonnage", tool: Tonnage },
  {
    id: "restspeed",
    name: "Rest and speed",
    tool: RestSpeed,
    fill: (facts) => ({
      steps: facts.restSteps
        .map((one) => `${plainNumber(one.restS, 0)} ${plainNumber(one.changeMps, 3)}`)
        .join(" "),
    }),
  },
  {
    id: "width",
    name: "Width of a test",
    tool: TestWidthTool,
    fill: (facts) => ({
      max: text(facts.maxKg),
      v0: text(facts.v0Mps),
      threshold: text(facts.thresholdMps),
    }),
  },
  {
    id: "jumps",
    name: "Loaded jumps",
    tool: LoadedJumps,
    fill: (facts) => ({
      jumps: facts.jumps
        .map((one) => `${plainNumber(one.loadKg, 1)} ${plainNumber(one.heightCm, 1)}`)
        .join(" "),
    }),
  },
  {
    id: "force",
    name: "Force of two reps",
    tool: ForceOfTwo,
    fill: ({ lightest, heaviest }) => ({
      light: repText(lightest),
      heavy: repText(heaviest),
    }),
  },
  {
    id: "share",
    name: "Share in kilograms",
    tool: Share,
    fill: (facts) => ({ max: text(facts.maxKg) }),
  },
  { id: "complex", name: "Length of a complex", tool: ComplexLength },
  { id: "lowering", name: "Box by mats", tool: Lowering },
];

/** One bench: each tool answers as one types, and its state is the address. */
export default function Lab({ loaderData, actionData }: Route.ComponentProps) {
  const { bench, maySend } = loaderData;
  const address = useAddress();
  const unit = useUnit();
  const [answer, setAnswer] = useState("");
  const [fills, setFills] = useState(0);
  // Fields hold what is typed; after a fill they start anew, once the address has the numbers.
  const filling = useRef(false);
  // The arrival, not the text: a fill may write what stands there already.
  const { key } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the address is what is waited for
  useEffect(() => {
    if (filling.current) {
      filling.current = false;
      setFills((n) => n + 1);
    }
  }, [key]);
  const tell = useCallback((next: string) => setAnswer(next), []);
  const chosen = TOOLS.find((one) => one.id === address.get("tool")) ?? (TOOLS[0] as Tool);
  const Tool = chosen.tool;
  const { fill } = chosen;
  const state = new URLSearchParams(address.params);
  state.delete("tool");
  return (
    <Page
      title="Lab"
      facts="Change a value; the address keeps it, and can be sent."
      actions={
        <button type="button" className="btn no-print" onClick={() => window.print()}>
          Print
        </button>
      }
      margin={
        <div className="no-print grid gap-6">
          {fill ? (
            <FillFrom
              key={chosen.id}
              bench={bench}
              onFacts={(facts) => {
                filling.current = true;
                address.setAll(fill(facts));
              }}
            />
          ) : null}
          {maySend ? (
            <SendTo
              bench={bench}
              tool={chosen.id}
              state={state.toString()}
              answer={answer}
              result={resultOf(actionData, "send")}
            />
          ) : null}
        </div>
      }
    >
      <nav
        aria-label="Tools"
        className="no-print -mx-4 mb-3 flex gap-x-4 overflow-x-auto border-b border-rule px-4 lg:flex-wrap"
      >
        {TOOLS.map((one) => (
          <Link
            key={one.id}
            to={`/lab?tool=${one.id}`}
            aria-current={one === chosen ? "page" : undefined}
            className={`whitespace-nowrap border-b-2 py-2 ${one === chosen ? "border-base-content font-bold" : "border-transparent text-muted hover:text-base-content"}`}
          >
            {one.name}
          </Link>
        ))}
        <Link
          to="/lab/profile"
          className="whitespace-nowrap border-b-2 border-transparent py-2 text-muted hover:text-base-content"
        >
          Profile test
        </Link>
        <Link
          to="/lab/gap"
          className="whitespace-nowrap border-b-2 border-transparent py-2 text-muted hover:text-base-content"
        >
          Gap test
        </Link>
      </nav>
      <h2 className="hidden print:block">{chosen.name}</h2>
      <AnswerProvider value={tell}>
        <Tool key={`${chosen.id}${unit}${fills}`} address={address} bench={bench} unit={unit} />
      </AnswerProvider>
    </Page>
  );
}
