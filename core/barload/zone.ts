/** The totals of a rack within a zone, and the widest step that a load in it has to round over, kg. */
export interface ZoneSteps {
  zoneKg: number[];
  widestKg: number;
}

/**
 * @param totalsKg that a rack builds, ascending
 * @param zone from its lower end to its upper, kg; the ends count as steps too
 */
export function stepsInZone(
  totalsKg: readonly number[],
  zone: { fromKg: number; toKg: number },
): ZoneSteps {
  const { fromKg, toKg } = zone;
  if (!Number.isFinite(fromKg) || !Number.isFinite(toKg) || !(toKg > fromKg))
    return { zoneKg: [], widestKg: 0 };
  const zoneKg = totalsKg.filter((kg) => kg >= fromKg && kg <= toKg);
  let widestKg = 0;
  let before = fromKg;
  for (const kg of [...zoneKg, toKg]) {
    widestKg = Math.max(widestKg, kg - before);
    before = kg;
  }
  return { zoneKg, widestKg: Number.isFinite(widestKg) ? widestKg : 0 };
}
