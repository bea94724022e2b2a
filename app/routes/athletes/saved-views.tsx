import { useState } from "react";
import { useLocation } from "react-router";
import { useIsLive } from "../../offline/use-is-live";
import { Field, Select } from "../../ui/field";
import { useAddress } from "../../ui/use-address";

const KEPT = "sprezza-athlete-views";
/** Views that one browser keeps. */
const MOST_VIEWS = 12;

interface View {
  name: string;
  search: string;
}

function readViews(): View[] {
  try {
    const all = JSON.parse(localStorage.getItem(KEPT) ?? "[]") as unknown;
    return Array.isArray(all)
      ? all.filter(
          (one): one is View => typeof one?.name === "string" && typeof one?.search === "string",
        )
      : [];
  } catch {
    return [];
  }
}

/** Filters and columns under a name, kept in this browser. */
export function SavedViews() {
  const live = useIsLive();
  const { search } = useLocation();
  const { asked, setAll } = useAddress();
  const [, again] = useState(0);
  const [naming, setNaming] = useState<string>();
  const views = live ? readViews() : [];
  const here = new URLSearchParams(search).toString();
  const now = views.find((view) => view.search === here);
  const write = (next: readonly View[]) => {
    try {
      localStorage.setItem(KEPT, JSON.stringify(next.slice(-MOST_VIEWS)));
    } catch {
      // A browser that keeps nothing: the address still has the view.
    }
    again((n) => n + 1);
  };
  const open = (name: string) => {
    const view = views.find((one) => one.name === name);
    const to = new URLSearchParams(view?.search ?? "");
    const values = Object.fromEntries([...asked().keys()].map((key) => [key, ""]));
    for (const [key, value] of to) values[key] = value;
    setAll(values);
  };
  if (naming !== undefined)
    return (
      <form
        className="no-print flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const name = naming.trim();
          if (name === "") return;
          // Not the address alone: what was chosen a moment before belongs to the view.
          const chosen = { name, search: asked().toString() };
          write([...views.filter((view) => view.name !== name), chosen]);
          setNaming(undefined);
        }}
      >
        <span className="w-40">
          <Field
            label="Name of this view"
            autoFocus
            maxLength={40}
            value={naming}
            onChange={(event) => setNaming(event.target.value)}
          />
        </span>
        <button type="submit" className="btn">
          Keep
        </button>
        <button type="button" className="btn" onClick={() => setNaming(undefined)}>
          Back
        </button>
      </form>
    );
  return (
    <div className="no-print flex items-end gap-2">
      {views.length > 0 ? (
        <span className="w-40">
          <Select
            label="View, of this browser"
            value={now?.name ?? ""}
            onChange={(event) => open(event.target.value)}
          >
            <option value="">as it stands</option>
            {views.map((view) => (
              <option key={view.name} value={view.name}>
                {view.name}
              </option>
            ))}
          </Select>
        </span>
      ) : null}
      {now ? (
        <button
          type="button"
          className="btn"
          onClick={() => write(views.filter((view) => view !== now))}
        >
          Forget it
        </button>
      ) : (
        <button type="button" className="btn" onClick={() => setNaming("")}>
          Keep this view
        </button>
      )}
    </div>
  );
}
