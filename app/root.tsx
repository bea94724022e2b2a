import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "./app.css";
import { type ReactNode, useEffect } from "react";
import {
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useLocation,
  useMatches,
} from "react-router";
import type { Route } from "./+types/root";
import { guard } from "./platform/guard.server";
import { DateOrderProvider, readDateOrder } from "./ui/dates";
import { Problem } from "./ui/problem";
import { readMargin, readTheme, type Theme } from "./ui/theme";

export const middleware: Route.MiddlewareFunction[] = [(args, next) => guard(args, next)];

export function loader({ request }: Route.LoaderArgs) {
  const cookies = request.headers.get("cookie");
  return {
    theme: readTheme(cookies),
    margin: readMargin(cookies),
    dates: readDateOrder(cookies, request.headers.get("accept-language")),
    once: crypto.randomUUID(),
  };
}

export const meta: Route.MetaFunction = () => [{ title: "Sprezza" }];

export const links: Route.LinksFunction = () => [
  { rel: "icon", href: "/mark.svg", type: "image/svg+xml" },
];

export function Layout({ children }: { children: ReactNode }) {
  const matches = useMatches();
  const { theme: chosen, margin } =
    (matches[0]?.loaderData as { theme?: Theme; margin?: "away" } | undefined) ?? {};
  const fixed = matches
    .map((match) => (match.handle as { theme?: Theme } | undefined)?.theme)
    .find(Boolean);
  return (
    <html lang="en" data-theme={chosen ?? fixed ?? "chalk"} data-margin={margin}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration />
        <Scripts />
      </body>
    </html>
  );
}

export default function App({ loaderData }: Route.ComponentProps) {
  const { pathname, search } = useLocation();
  // Says which page answers keys and clicks: an address changes a moment before its page does.
  useEffect(() => {
    document.documentElement.dataset.shown = pathname + search;
  }, [pathname, search]);
  return (
    <DateOrderProvider order={loaderData.dates}>
      <Outlet />
    </DateOrderProvider>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return (
    <main className="mx-auto max-w-xl p-6">
      <Problem error={error} />
    </main>
  );
}
