import { databases } from "./database.server";
import { closeAllStreams, closeStreamsOf } from "./live-places.server";
import { log } from "./log.server";

/** What the database tells of a person or tablet whose rights have changed: no name, an id. */
interface Told {
  /** Absent where it is about a sign-in, whatever its team. */
  team?: string;
  /** `rack:` and a tablet's id, or `person:` and a person's. */
  holder: string;
}

let listened = false;
let watching: Promise<unknown> | undefined;

/** Closes the streams of whoever loses a right, from the first stream of this process on. */
export async function watchPrincipals(): Promise<void> {
  watching ??= databases()
    .app.client.listen(
      "sprezza_principal",
      (payload) => {
        const { team, holder } = JSON.parse(payload) as Told;
        closeStreamsOf(team, holder);
      },
      () => {
        // After a lost connection: what was told meanwhile is not known, so everybody is asked.
        if (listened) closeAllStreams();
        listened = true;
      },
    )
    .catch((error: unknown) => {
      watching = undefined;
      log.error({ err: error }, "listening for changed rights failed");
      throw error;
    });
  await watching;
}
