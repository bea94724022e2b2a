import { useEffect } from "react";
import { Link, redirect, useRevalidator } from "react-router";
import { principalOf } from "../../platform/guard.server";
import { homeOf } from "../../platform/rights";
import { sessionAtRack } from "../../workflows/tablets/tablets.server";
import type { Route } from "./+types/home";

export const handle = { theme: "cellar" as const };

/** People go to their place; a rack's tablet waits here for its next session. */
export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  if (principal.kind === "person") throw redirect(homeOf(principal));
  const sessionId = await sessionAtRack(principal);
  if (sessionId) throw redirect(`/rack/${sessionId}/${principal.rackId}`);
  return { name: principal.name };
}

const LOOK_AGAIN_MS = 5000;

export default function Waiting() {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const timer = window.setInterval(() => void revalidate(), LOOK_AGAIN_MS);
    return () => window.clearInterval(timer);
  }, [revalidate]);
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center p-6 text-[17px]">
      <h1>This tablet is paired</h1>
      <p className="mt-2 text-muted">
        No session uses this rack now. When a coach starts one, it opens here by itself.
      </p>
      <p className="mt-4">
        <Link className="btn min-h-[64px]" to="/" reloadDocument>
          Look now
        </Link>
      </p>
    </main>
  );
}
