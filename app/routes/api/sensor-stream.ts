import { eventStream } from "../../platform/event-stream.server";
import { principalOf } from "../../platform/guard.server";
import { takePlace } from "../../platform/live-places.server";
import { watchPrincipals } from "../../platform/principal-news.server";
import { followFrames, sensorState } from "../../platform/sensor-frames.server";
import { mayFollowRack } from "../../workflows/tablets/sensor.server";
import type { Route } from "./+types/sensor-stream";

const SLOW_MS = 10_000;
/** What is known of the sensor is said when it changes, looked at so often, ms. */
const LOOK_MS = 1000;
/** A line that nothing was said on for so long is said to be there, in looks. */
const BEAT_LOOKS = 15;
/** Messages that wait for a reader at the most: older frames of a live bar are worth nothing. */
const MOST_WAITING = 100;

/** A rack's sensor as it sends: what is known of it, and with `?frames` its frames. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const { rackId } = params;
  const { pathname, searchParams } = new URL(request.url);
  if (pathname.endsWith(".data"))
    return new Response("This is a stream. Ask for it by its own address.", { status: 404 });
  if (!(await mayFollowRack(principal, rackId)))
    return new Response("No such rack in your room.", { status: 404 });
  await watchPrincipals();
  const place = takePlace(principal);
  if (!place)
    return new Response("Too many screens follow just now. This one tries again by itself.", {
      status: 503,
      headers: { "retry-after": "5" },
    });
  const stream = eventStream(
    AbortSignal.any([request.signal, place.lost]),
    (stop) => sensorNews(principal.teamId, rackId, searchParams.has("frames"), stop),
    { slowMs: SLOW_MS, ended: () => place.giveBack() },
  );
  return new Response(stream, { headers: { "content-type": "text/event-stream" } });
}

async function* sensorNews(
  teamId: string,
  rackId: string,
  withFrames: boolean,
  stop: AbortSignal,
): AsyncGenerator<string, void, void> {
  let waiting: string[] = [];
  let wake = () => {};
  stop.addEventListener("abort", () => wake(), { once: true });
  const leave = withFrames
    ? await followFrames(teamId, rackId, (frames) => {
        waiting.push(`event: frames\ndata: ${JSON.stringify(frames)}\n\n`);
        if (waiting.length > MOST_WAITING) waiting = waiting.slice(-MOST_WAITING);
        wake();
      })
    : await followFrames(teamId, rackId, () => {});
  let said = "";
  let quiet = 0;
  try {
    yield "retry: 2000\n\n";
    while (!stop.aborted) {
      const state = sensorState(teamId, rackId);
      // How long it is silent changes every second, and is news only with the rest.
      const words = `${state.sending} ${state.two} ${state.silentS === undefined}`;
      if (words !== said) {
        said = words;
        yield `event: state\ndata: ${JSON.stringify(state)}\n\n`;
        quiet = 0;
      }
      while (waiting.length > 0) {
        yield waiting.shift() as string;
        quiet = 0;
      }
      if (++quiet > BEAT_LOOKS) {
        quiet = 0;
        yield ": still here\n\n";
      }
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, LOOK_MS);
        wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
    }
  } finally {
    leave();
  }
}
