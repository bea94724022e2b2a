import { type ReactNode, useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import {
  NavLink,
  Outlet,
  useLocation,
  useNavigate,
  useNavigation,
  useRevalidator,
} from "react-router";
import type { DateOrder } from "../../../core/units/date-order";
import type { MassUnit } from "../../../core/units/mass";
import { principalOf } from "../../platform/guard.server";
import {
  holdForms,
  holdLinks,
  tellAddressUnderWay,
  tellFormUnderWay,
} from "../../ui/after-submission";
import { DATE_ORDERS, switchDateOrder, useDateOrder } from "../../ui/dates";
import { Form } from "../../ui/form";
import { SaidHere, say } from "../../ui/said";
import { singleKeysOn } from "../../ui/single-keys";
import { switchMargin, switchTheme } from "../../ui/theme";
import { UnitProvider } from "../../ui/unit";
import { WorkingProvider } from "../../ui/working";
import { readFrame } from "../../workflows/frame/frame.server";
import type { Route } from "./+types/frame";
import { KeyList } from "./key-list";
import type { Palette as PaletteShown } from "./palette";
import { FIRST_HOUR, PLACES } from "./places";

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return readFrame(principal);
}

export default function Frame({ loaderData }: Route.ComponentProps) {
  const { team, person, role, unit, firstHour } = loaderData;
  const staff = role !== "athlete";
  const [palette, setPalette] = useState(false);
  const [Palette, setLoaded] = useState<typeof PaletteShown>();
  const [keys, setKeys] = useState(false);
  const [guide, setGuide] = useState<ReactNode>();
  const navigate = useNavigate();
  const navigation = useNavigation();
  const loading = navigation.state !== "idle";
  const formUnderWay = loading && navigation.formMethod !== undefined;
  useEffect(() => tellFormUnderWay(formUnderWay), [formUnderWay]);
  useEffect(() => holdLinks(), []);
  useEffect(() => holdForms(), []);
  useEffect(() => {
    // Where nothing loads any more, whatever was asked for is there, or somebody went elsewhere.
    if (!loading) tellAddressUnderWay(false);
  }, [loading]);
  const places = PLACES.filter((place) => place.roles.includes(role));

  // Comes when it is asked for: most pages are left without.
  const find = () => {
    setPalette(true);
    import("./palette").then(
      (loaded) => setLoaded(() => loaded.Palette),
      () => {
        setPalette(false);
        say("Nothing can be looked up without a link. Try again once it is back.");
      },
    );
  };
  const { pathname, search } = useLocation();
  // Words and drawings come when somebody asks.
  const explain = () => {
    void Promise.all([import("./guide"), import("./guides")]).then(
      ([{ GuideDialog }, { guideFor }]) => {
        const found = guideFor(pathname + search);
        if (!found) return say("This page has no guide: it says what it needs itself.");
        setGuide(<GuideDialog guide={found} onClose={() => setGuide(undefined)} />);
      },
      () => say("The guide comes over the link. Try again once it is back."),
    );
  };
  useHotkeys("mod+k", find, {
    enabled: staff,
    enableOnFormTags: true,
    preventDefault: true,
  });
  useHotkeys("w", () => window.dispatchEvent(new Event("sprezza:working")), {
    ignoreEventWhen: () => !singleKeysOn(),
  });
  useHotkeys("m", switchMargin, { ignoreEventWhen: () => !singleKeysOn() });
  // `g` and then a letter within a second and a half.
  useEffect(() => {
    let armed = 0;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing = /^(input|textarea|select)$/i.test(target.tagName) || target.isContentEditable;
      if (typing || event.ctrlKey || event.metaKey || event.altKey || !singleKeysOn()) return;
      if (event.key === "?") {
        setKeys(true);
        return;
      }
      if (event.key === "g") {
        armed = event.timeStamp;
        return;
      }
      const place = PLACES.find((one) => one.key === event.key && one.roles.includes(role));
      if (place && armed && event.timeStamp - armed < 1500) {
        event.preventDefault();
        void navigate(place.to);
      }
      armed = 0;
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, role]);

  return (
    <UnitProvider unit={unit}>
      <WorkingProvider>
        <a
          href="#main"
          className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-base-100 focus:p-2"
        >
          Skip to the page
        </a>
        <header className="no-print sticky top-0 z-30 flex h-11 items-stretch gap-1 border-b border-rule bg-base-100 px-4">
          <span className="mr-3 self-center text-lg font-bold tracking-tight max-sm:hidden">
            sprezza
          </span>
          <nav aria-label="Places" className="flex items-stretch overflow-x-auto">
            {[...(firstHour === undefined ? [] : [FIRST_HOUR]), ...places]
              .filter((place) => place.main)
              .map((place) => (
                <NavLink
                  key={place.to}
                  to={place.to}
                  className={({ isActive }) =>
                    `flex items-center border-b-2 px-3 max-sm:px-2 ${isActive ? "border-base-content font-bold" : "border-transparent text-muted hover:text-base-content"}`
                  }
                >
                  {place.name}
                </NavLink>
              ))}
          </nav>
          <span className="ml-auto flex items-center gap-3">
            <span role="status" className="text-muted max-md:hidden">
              {loading ? "Loading …" : team}
            </span>
            <button
              type="button"
              className="min-h-8 px-1 text-sm text-muted underline underline-offset-3 hover:text-base-content pointer-coarse:min-h-11"
              aria-haspopup="dialog"
              aria-label="How this page is worked"
              onClick={explain}
            >
              How
            </button>
            {staff ? (
              <button
                type="button"
                className="rounded border border-control px-2 py-0.5 text-sm text-muted max-sm:hidden"
                onClick={find}
              >
                Find <kbd className="font-sans">Ctrl K</kbd>
              </button>
            ) : null}
            <Menu
              person={person}
              role={role}
              unit={unit}
              places={places.filter((place) => !place.main)}
              onKeys={() => setKeys(true)}
            />
          </span>
        </header>
        <Outlet />
        {palette && Palette ? <Palette onClose={() => setPalette(false)} places={places} /> : null}
        {guide}
        {keys ? <KeyList onClose={() => setKeys(false)} /> : null}
        <SaidHere />
      </WorkingProvider>
    </UnitProvider>
  );
}

/** What this browser keeps of the floor's screens is nobody's after a sign-out. */
const forgetScreens = () => {
  void import("../../offline/kept-screens").then((kept) => kept.forgetScreens()).catch(() => {});
};

function Menu({
  person,
  role,
  unit,
  places,
  onKeys,
}: {
  person: string;
  role: string;
  unit: MassUnit;
  places: Array<{ to: string; name: string }>;
  onKeys: () => void;
}) {
  const initials = person
    .split(" ")
    .map((word) => word[0])
    .join("")
    .slice(0, 2);
  const [open, setOpen] = useState(false);
  const location = useLocation();
  const order = useDateOrder();
  const { revalidate } = useRevalidator();
  const row = "block w-full px-3 py-2 text-left hover:bg-wash";
  const close = () => setOpen(false);
  // Signing out leaves this page: what it then calls is there by then.
  useEffect(() => {
    if (open) void import("../../offline/kept-screens");
  }, [open]);
  return (
    <div className="relative">
      <button
        type="button"
        className="flex min-h-9 min-w-9 items-center justify-center rounded font-medium hover:bg-wash"
        aria-expanded={open}
        aria-haspopup="true"
        aria-label={`Menu of ${person}`}
        onClick={() => setOpen(!open)}
        onKeyDown={(event) => event.key === "Escape" && close()}
      >
        {initials}
      </button>
      {open ? (
        <div className="absolute right-0 z-40 mt-1 w-56 rounded border border-control bg-base-100 py-1 shadow-[0_6px_24px_rgb(0_0_0/0.18)]">
          <p className="border-b border-faint px-3 py-2">
            {person}
            <span className="block text-sm text-muted">{role}</span>
          </p>
          {places.map((place) => (
            <NavLink key={place.to} to={place.to} className={row} onClick={close}>
              {place.name}
            </NavLink>
          ))}
          <button
            type="button"
            className={row}
            onClick={() => {
              const dark = document.documentElement.dataset.theme === "cellar";
              switchTheme(dark ? "chalk" : "cellar");
            }}
          >
            Light or dark
          </button>
          <button
            type="button"
            className={row}
            onClick={() => {
              close();
              onKeys();
            }}
          >
            Keys
          </button>
          <Form method="post" action="/api/unit" onSubmit={close}>
            <input type="hidden" name="back" value={`${location.pathname}${location.search}`} />
            <button type="submit" name="unit" value={unit === "kg" ? "lb" : "kg"} className={row}>
              Read loads in {unit === "kg" ? "pounds" : "kilograms"}
            </button>
          </Form>
          <label className="flex items-center justify-between gap-2 px-3 py-2">
            Dates
            <select
              className="rounded border border-control bg-base-100 px-1 py-0.5 pointer-coarse:min-h-11"
              value={order}
              onChange={(event) => {
                switchDateOrder(event.target.value as DateOrder);
                void revalidate();
              }}
            >
              {DATE_ORDERS.map((one) => (
                <option key={one.order} value={one.order}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <NavLink to="/account" className={row} onClick={close}>
            Your sign-in and teams
          </NavLink>
          <Form method="post" action="/sign-out" onSubmit={forgetScreens}>
            <button type="submit" className={row}>
              Sign out
            </button>
          </Form>
        </div>
      ) : null}
    </div>
  );
}
