import type { ReactNode } from "react";
import { Dated } from "./dates";
import { switchMargin } from "./theme";
import { useWorking, WorkingPanel } from "./working";

/**
 * A place: its heading, its ledger, and the margin on the right (a sheet from below on narrow screens).
 * A page without figures has no margin unless it gives one; each browser may put it away.
 */
export function Page({
  title,
  facts,
  actions,
  margin,
  children,
}: {
  title: ReactNode;
  facts?: ReactNode;
  actions?: ReactNode;
  /** What the margin holds besides the working. */
  margin?: ReactNode;
  children: ReactNode;
}) {
  const { selected } = useWorking();
  return (
    <div className={margin ? "page page-margin" : "page"}>
      <section
        aria-labelledby="page-title"
        className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-4 py-3 lg:col-span-2"
      >
        <h1 id="page-title">{typeof title === "string" ? <Dated>{title}</Dated> : title}</h1>
        {facts ? (
          <p className="text-muted">{typeof facts === "string" ? <Dated>{facts}</Dated> : facts}</p>
        ) : null}
        {actions ? <div className="ml-auto flex flex-wrap gap-2">{actions}</div> : null}
      </section>
      <main id="main" className="min-w-0 px-4 py-3" tabIndex={-1}>
        {children}
      </main>
      <aside
        aria-label="Margin"
        className={`border-rule bg-base-200 px-4 py-3 lg:border-l ${margin ? "border-t lg:border-t-0" : "max-lg:p-0"}`}
      >
        <div
          className={
            selected
              ? "max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-20 max-lg:max-h-[55dvh] max-lg:overflow-auto max-lg:border-t max-lg:border-control max-lg:bg-base-200 max-lg:p-4 max-lg:shadow-[0_-6px_24px_rgb(0_0_0/0.18)] lg:sticky lg:top-11 lg:z-10 lg:-mx-4 lg:mb-3 lg:border-b lg:border-control lg:bg-base-200 lg:px-4 lg:pb-3"
              : ""
          }
        >
          <WorkingPanel />
        </div>
        {margin ? <div className="margin-here contents">{margin}</div> : null}
        {!margin && !selected ? (
          <p className="margin-here hidden text-muted lg:block">
            Select a figure to see its working here. Arrow keys go from one to the next.
          </p>
        ) : null}
        {selected ? null : (
          <button
            type="button"
            className="mt-4 hidden min-h-8 text-sm text-muted underline lg:block"
            onClick={switchMargin}
          >
            <span className="margin-here">Hide margin</span>
            <span className="margin-away">Show margin</span>
          </button>
        )}
      </aside>
    </div>
  );
}

/** An empty place: one sentence and one action. */
export function Empty({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div className="border-y border-rule py-6">
      <p>{children}</p>
      {action ? <p className="mt-3">{action}</p> : null}
    </div>
  );
}

/** Something to know, with a word and a bar at its side, never by colour alone. */
export function Notice({
  kind,
  title,
  children,
}: {
  kind: "warning" | "problem" | "note";
  title: string;
  children?: ReactNode;
}) {
  const edge = { warning: "border-secondary", problem: "border-accent", note: "border-primary" }[
    kind
  ];
  return (
    <div
      className={`my-2 border-l-[3px] ${edge} pl-3`}
      role={kind === "problem" ? "alert" : undefined}
    >
      <p className="font-bold">
        <Dated>{title}</Dated>
      </p>
      {children ? <div className="text-muted">{children}</div> : null}
    </div>
  );
}
