import type { Complex } from "./complex";

/** The version for who is not yet strong enough: body weight, one item fewer, longer rest. */
export function simplerComplex(complex: Complex): Complex {
  const lifts = complex.items.filter((item) => item.kind !== "lift");
  const items = (lifts.length > 0 ? lifts : complex.items).map((item) => ({
    ...item,
    load: { by: "none" as const },
  }));
  return {
    ...complex,
    name: `${complex.name}, simpler`,
    items,
    rounds: Math.min(complex.rounds, 3),
    restS: Math.max(complex.restS, 120),
    direction: "hold",
    weekStep: 0,
  };
}

/** The same complex with an athlete's own gap after its lifts; for potentiation only. */
export function withOwnGap(complex: Complex, gapS: number | undefined): Complex {
  if (gapS === undefined || complex.aim !== "potentiation") return complex;
  return {
    ...complex,
    items: complex.items.map((item, i) =>
      item.kind === "lift" && i < complex.items.length - 1 ? { ...item, gapS } : item,
    ),
  };
}
