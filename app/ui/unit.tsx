import { createContext, type ReactNode, useContext } from "react";
import type { MassUnit } from "../../core/units/mass";

const UnitContext = createContext<MassUnit>("kg");

/** The unit in which the person who looks reads loads. */
export function UnitProvider({ unit, children }: { unit: MassUnit; children: ReactNode }) {
  return <UnitContext value={unit}>{children}</UnitContext>;
}

export function useUnit(): MassUnit {
  return useContext(UnitContext);
}
