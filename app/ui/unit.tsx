import { createContext, type ReactNode, useCallback, useContext } from "react";
import { kgToGrains, type MassUnit, massIn } from "../../core/units/mass";

const UnitContext = createContext<MassUnit>("kg");

/** The unit in which the person who looks reads loads. */
export function UnitProvider({ unit, children }: { unit: MassUnit; children: ReactNode }) {
  return <UnitContext value={unit}>{children}</UnitContext>;
}

export function useUnit(): MassUnit {
  return useContext(UnitContext);
}

/** Kilograms as a number in the reader's unit, for axes and bare figures. */
export function useMassIn(): (kg: number) => number {
  const unit = useUnit();
  return useCallback((kg: number) => massIn(kgToGrains(kg), unit), [unit]);
}
