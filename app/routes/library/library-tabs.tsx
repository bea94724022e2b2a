import { NavLink } from "react-router";

/** The shelves of the library. */
export function LibraryTabs() {
  const shelf = (to: string, name: string) => (
    <NavLink
      end
      to={to}
      className={({ isActive }) =>
        `border-b-2 py-1 ${isActive ? "border-base-content font-bold" : "border-transparent text-muted hover:text-base-content"}`
      }
    >
      {name}
    </NavLink>
  );
  return (
    <nav aria-label="Library" className="mb-3 flex gap-4 overflow-x-auto whitespace-nowrap">
      {shelf("/library", "Exercises")}
      {shelf("/library/lifts", "Lift variants")}
      {shelf("/library/recipes", "Recipes")}
      {shelf("/library/complexes", "Complexes")}
      {shelf("/library/faults", "Box faults and cues")}
      {shelf("/library/schools", "Schools")}
      {shelf("/library/coach-set", "Coach-set values")}
    </nav>
  );
}
