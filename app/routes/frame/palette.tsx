import { Command } from "cmdk";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { Dated } from "../../ui/dates";
import type { Findable } from "../../workflows/frame/find.server";
import type { Place } from "./places";

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
  const go = (to: string) => {
    onClose();
    void navigate(to);
  };
  const item =
    "flex cursor-pointer items-baseline justify-between gap-4 px-4 py-2 data-[selected=true]:bg-wash";
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find anything"
      overlayClassName="fixed inset-0 z-40 bg-black/40"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(92vw,560px)] -translate-x-1/2 rounded border border-control bg-base-100 shadow-[0_10px_40px_rgb(0_0_0/0.25)]"
    >
      <Command.Input
        placeholder="A name, a plan, a place …"
        className="h-12 w-full border-b border-rule bg-transparent px-4 text-base outline-none"
      />
      <Command.List className="max-h-[50vh] overflow-auto py-1">
        <Command.Empty className="px-4 py-3 text-muted">
          {found ? "Nothing by that name." : "Looking …"}
        </Command.Empty>
        {places.map((place) => (
          <Command.Item key={place.to} className={item} onSelect={() => go(place.to)}>
            {place.name}
            <span className="text-sm text-muted">Place</span>
          </Command.Item>
        ))}
        {(found ?? []).map((one) => (
          <Command.Item
            key={one.to}
            value={`${one.label} ${one.detail} ${one.to}`}
            className={item}
            onSelect={() => go(one.to)}
          >
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
