import { Link } from "react-router";
import type { ItemOf } from "../../../../core/gear/kinds";
import { formatMass } from "../../../../core/units/mass";
import { PlatePairs } from "./rack-drawing";

/** The plates that all racks of a room share: what is tapped off a rack hangs here. */
export function SharedPlates({ store }: { store: ItemOf<"store"> & { id: string } }) {
  const { plates } = store.values;
  return (
    <section
      aria-label={`${store.name}, drawn`}
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-2"
    >
      <h2>
        <Link to={`?item=${store.id}`} replace preventScrollReset className="hover:underline">
          {store.name}
        </Link>
      </h2>
      {plates.length === 0 ? (
        <p className="text-muted">All of them hang on racks.</p>
      ) : (
        <ul className="flex flex-wrap items-center gap-x-5 gap-y-1">
          {plates.map((one) => (
            <li
              key={formatMass(one.mass)}
              className={`flex items-center gap-1.5 text-sm ${one.pairs === 0 ? "text-muted" : ""}`}
            >
              <span>
                <b>{formatMass(one.mass)}</b> ×{one.pairs}
              </span>
              <PlatePairs plate={one} />
            </li>
          ))}
        </ul>
      )}
      <p className="basis-full text-sm text-muted">
        A pair that is hung on a rack comes from here; one that is taken off comes here.
      </p>
    </section>
  );
}
