import { redirect } from "react-router";
import { callAuth } from "../../platform/auth.server";
import type { Route } from "./+types/sign-out";

export function loader() {
  throw redirect("/");
}

export async function action({ request }: Route.ActionArgs) {
  const response = await callAuth(request, "/sign-out", {});
  const headers = new Headers();
  for (const cookie of response.headers.getSetCookie()) headers.append("set-cookie", cookie);
  throw redirect("/sign-in", { headers });
}
