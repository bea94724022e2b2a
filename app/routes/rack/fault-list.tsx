import { useState } from "react";
import { faultsFor } from "../../../core/liverules/faults";
import { Sheet } from "./sheet";

/** One tap a fault; it may cut the set. */
export function FaultList({
  lift,
  onFault,
  onClose,
}: {
  lift: string;
  onFault: (fault: string, cut: boolean) => void;
  onClose: () => void;
}) {
  const [cut, setCut] = useState(false);
  return (
    <Sheet title="Fault seen" onClose={onClose}>
      <div className="mt-3 grid grid-cols-2 gap-2">
        {faultsFor(lift).map((fault) => (
          <button
            key={fault}
            type="button"
            className="btn min-h-[64px] text-[18px]"
            onClick={() => {
              onFault(fault, cut);
              onClose();
            }}
          >
            {fault}
          </button>
        ))}
      </div>
      <label className="mt-4 flex min-h-[64px] items-center gap-3 text-[18px]">
        <input
          type="checkbox"
          className="checkbox border-control"
          checked={cut}
          onChange={(event) => setCut(event.target.checked)}
        />
        and cut the set
      </label>
    </Sheet>
  );
}
