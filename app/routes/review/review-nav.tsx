import { NavLink } from "react-router";

const PLACES = [
  ["/review", "Calls"],
  ["/review/wave", "Waves"],
  ["/review/trends", "Trends"],
  ["/review/block", "Block and tests"],
  ["/review/pays", "What pays"],
  ["/review/week", "The week"],
  ["/review/notes", "Notes"],
  ["/review/box", "Box cycles"],
] as const;

/** The pages of the place, in the order in which they are asked. */
export function ReviewNav() {
  return (
    <nav aria-label="Review" className="no-print mb-3 flex flex-wrap gap-x-4 border-b border-rule">
      {PLACES.map(([to, name]) => (
        <NavLink
          key={to}
          to={to}
          end
          className={({ isActive }) =>
            `-mb-px flex min-h-9 items-center border-b-2 ${isActive ? "border-base-content font-bold" : "border-transparent text-muted hover:text-base-content"}`
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
