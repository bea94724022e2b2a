import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { Select } from "../../ui/field";
import { Notice } from "../../ui/page";
import type { Bench, BenchFacts } from "./tools/tool";

type Found = { ok: true; value: BenchFacts } | { ok: false; message: string };

/** Takes an athlete's numbers into the tool's fields. The address then holds the numbers only. */
export function FillFrom({
  bench,
  onFacts,
}: {
  bench: Bench;
  onFacts: (facts: BenchFacts) => void;
}) {
  const fetcher = useFetcher<Found>();
  const [athlete, setAthlete] = useState("");
  const [variant, setVariant] = useState(bench.variants[0]?.id ?? "");
  const given = useRef<Found>(undefined);
  const found = fetcher.data;
  useEffect(() => {
    if (found && found !== given.current) {
      given.current = found;
      if (found.ok) onFacts(found.value);
    }
  }, [found, onFacts]);
  return (
    <section aria-label="Fill from an athlete" className="grid gap-2">
      <h2>Fill from an athlete</h2>
      <Select label="Athlete" inline value={athlete} onChange={(e) => setAthlete(e.target.value)}>
        <option value="">nobody</option>
        {bench.athletes.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <Select label="Lift" inline value={variant} onChange={(e) => setVariant(e.target.value)}>
        {bench.variants.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <button
        type="button"
        className="btn"
        disabled={athlete === "" || variant === "" || fetcher.state !== "idle"}
        onClick={() => void fetcher.load(`/api/bench/${athlete}/${variant}`)}
      >
        Fill the fields
      </button>
      <div aria-live="polite">
        {found?.ok === false ? <Notice kind="problem" title={found.message} /> : null}
        {found?.ok ? <p className="text-sm text-muted">{filledWords(found.value)}</p> : null}
      </div>
    </section>
  );
}

function filledWords(facts: BenchFacts): string {
  const parts = [
    facts.maxKg === undefined ? "no working max" : undefined,
    facts.points === "" ? "no profile" : `profile of ${facts.testedOn}, ${facts.metric}`,
    facts.bottomM === undefined
      ? "bar heights not known"
      : facts.heightsMeasured
        ? "bar heights measured"
        : "bar heights estimated from stature",
  ].filter((one) => one !== undefined);
  return `Filled: ${parts.join("; ")}. What is missing keeps its default.`;
}
