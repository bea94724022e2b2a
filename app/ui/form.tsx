import type { ComponentProps } from "react";
import { Form as RouterForm, useRouteLoaderData } from "react-router";

/** A number of the page as it was loaded; another after every change that was taken. */
export function useOnce(): string {
  const root = useRouteLoaderData<{ once?: string }>("root");
  return root?.once ?? "";
}

/**
 * A form that is taken once: sent again as it stands (a second press, a link that broke before
 * the answer came), it is answered with what it made the first time.
 */
export function Form({ children, ...props }: ComponentProps<typeof RouterForm>) {
  const once = useOnce();
  return (
    <RouterForm {...props}>
      <input type="hidden" name="once" value={once} />
      {children}
    </RouterForm>
  );
}
