import type { Working } from "../units/working";

/** One line of work: sets × reps × load, a dumbbell counted for one hand or for both. */
export interface WorkLine {
  sets: number;
  reps: number;
  loadKg: number;
  /** 2 where the load is written per hand and both hands work. */
  hands: 1 | 2;
}

export function tonnageKg({ sets, reps, loadKg, hands }: WorkLine): number {
  return sets * reps * loadKg * hands;
}

export interface Progression {
  name: string;
  line: WorkLine;
  tonnageKg: number;
  deltaKg: number;
}

/** The next steps of an accessory, one thing changed at a time, with what each adds. */
export function progressions(
  line: WorkLine,
  step: { reps: number; loadKg: number; sets: number },
): Progression[] {
  const now = tonnageKg(line);
  const next = (name: string, changed: WorkLine) => ({
    name,
    line: changed,
    tonnageKg: tonnageKg(changed),
    deltaKg: tonnageKg(changed) - now,
  });
  return [
    next(`${step.reps} more reps a set`, { ...line, reps: line.reps + step.reps }),
    next(`${step.loadKg} kg more`, { ...line, loadKg: line.loadKg + step.loadKg }),
    next(step.sets === 1 ? "one more set" : `${step.sets} more sets`, {
      ...line,
      sets: line.sets + step.sets,
    }),
  ];
}

export function tonnageWorking(line: WorkLine): Working {
  const { sets, reps, loadKg, hands } = line;
  return {
    title: "Tonnage",
    lines: [
      { label: "Sets × reps", value: `${sets} × ${reps} = ${sets * reps}` },
      {
        label: "Load",
        value: `${loadKg} kg`,
        detail: hands === 2 ? "per hand, both counted" : "in all",
      },
      { label: "Tonnage", value: `${tonnageKg(line)} kg`, emphasis: "answer" },
    ],
    changes: ["Whether a dumbbell counts one hand or both."],
  };
}
