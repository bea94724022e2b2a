import { Command, defaultFilter } from "cmdk";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { Dated } from "../../ui/dates";
import type { Findable } from "../../workflows/frame/find.server";
import type { Place } from "./places";

/** More fit no list that is read. */
const MOST_SHOWN = 30;

/** Ctrl K: goes to anything by its name. */
export function Palette({ onClose, places }: { onClose: () => void; places: readonly Place[] }) {
  const navigate = useNavigate();
  const [found, setFound] = useState<Findable[]>();
  useEffect(() => {
    let wanted = true;
    fetch("/api/find")
      .then((response) => (response.ok ? (response.json() as Promise<Findable[]>) : []))
      .catch(() => [])
      .then((rows) => wanted && setFound(rows));
    return () => {
      wanted = false;
    };
  }, []);
  const [asked, ask] = useState("");
  // Letters first; what fits them as soon as there is time for it.
  const sought = useDeferredValue(asked);
  const fitting = useMemo(() => {
    const all = [
      ...places.map((place) => ({ label: place.name, detail: "Place", to: place.to })),
      ...(found ?? []),
    ];
    return all
      .map((one) => ({
        ...one,
        score: sought === "" ? 1 : (defaultFilter(`${one.label} ${one.detail}`, sought) ?? 0),
      }))
      .filter((one) => one.score > 0)
      .sort((a, b) => b.score - a.score)
      .slice(0, MOST_SHOWN);
  }, [places, found, sought]);
  // Enter goes to what fits best, until the arrows choose another.
  const [chosen, choose] = useState("");
  useEffect(() => choose(fitting[0]?.to ?? ""), [fitting]);
  const go = (to: string) => {
    onClose();
    void navigate(to);
  };
  const item =
    "flex cursor-pointer items-baseline justify-between gap-4 px-4 py-2 data-[selected=true]:bg-wash";
  return (
    <Command.Dialog
      open
      shouldFilter={false}
      value={chosen}
      onValueChange={choose}
      onOpenChange={(open) => !open && onClose()}
      label="Find anything"
      overlayClassName="fixed inset-0 z-40 bg-black/40"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(92vw,560px)] -translate-x-1/2 rounded border border-control bg-base-100 shadow-[0_10px_40px_rgb(0_0_0/0.25)]"
    >
      <Command.Input
        value={asked}
        onValueChange={ask}
        placeholder="A name, a plan, a place …"
        className="h-12 w-full border-b border-rule bg-transparent px-4 text-base outline-none"
      />
      <Command.List className="max-h-[50vh] overflow-auto py-1">
        <Command.Empty className="px-4 py-3 text-muted">
          {found ? "Nothing by that name." : "Looking …"}
        </Command.Empty>
        {fitting.map((one) => (
          <Command.Item key={one.to} value={one.to} className={item} onSelect={() => go(one.to)}>
            {one.label}
            <span className="text-sm text-muted">
              <Dated>{one.detail}</Dated>
            </span>
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
