import { type ComponentType, useEffect, useState } from "react";

const TRY_AGAIN_MS = 2000;

/** A part of the screen that is fetched after it. */
export class LaterPart<P extends object> {
  readonly #fetch: () => Promise<ComponentType<P>>;
  /** Once it is there. */
  there: ComponentType<P> | undefined;

  constructor(fetch: () => Promise<ComponentType<P>>) {
    this.#fetch = fetch;
  }

  /** Rejects where it cannot be fetched now. */
  async ready(): Promise<ComponentType<P>> {
    this.there ??= await this.#fetch();
    return this.there;
  }
}

/**
 * Shows such a part. Where the link is away it says so and fetches again by itself: a part that
 * is missing must not take the lifting with it.
 */
export function Later<P extends object>({ part, of }: { part: LaterPart<P>; of: P }) {
  const [Part, setPart] = useState(() => part.there);
  const [away, setAway] = useState(false);
  useEffect(() => {
    if (Part) return;
    let left = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = () =>
      void part.ready().then(
        (fetched) => left || setPart(() => fetched),
        () => {
          if (left) return;
          setAway(true);
          timer = setTimeout(ask, TRY_AGAIN_MS);
        },
      );
    ask();
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [Part, part]);
  if (Part) return <Part {...of} />;
  return away ? (
    <p role="alert" className="border-l-[3px] border-warning pl-3 text-[19px]">
      This part of the screen is not on the tablet yet, and the link is away. It comes by itself.
      Reps are logged all the same.
    </p>
  ) : null;
}
