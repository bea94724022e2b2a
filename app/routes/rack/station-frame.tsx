import type { ReactNode } from "react";
import type { LogEntry } from "../../../core/floor/entries";
import type { FrozenSession } from "../../../core/floor/frozen";
import type { StationState } from "../../../core/floor/stations";
import type { SensorSource } from "../../../device/sources";
import type { SessionLog, SessionView } from "../../offline/session-log";

export interface StationData {
  sessionId: string;
  stationId: string;
  frozen: FrozenSession;
  entries: LogEntry[];
  /** Up to which number what is needed here is here; see the session's log. */
  heard?: number;
  /** Whose reps came along; those of others are asked for when they come to this station. */
  repsOf: string[];
  /** By slot and athlete, where each one's frames come from. */
  sensors: Record<string, SensorSource>;
  /** Why nothing measures here; undefined where something does. */
  noSensor: string | undefined;
  /** Who writes entries, by the log's own name for them. */
  names: Record<string, string>;
  serverNowMs: number;
  ended: boolean;
  /** Whether this is the rack's own tablet. */
  fixed: boolean;
  /** An athlete's own phone: everything of the day, one after the other. */
  alone?: boolean;
}

/** What every kind of work at a station is drawn with. */
export interface WorkProps extends StationData {
  log: SessionLog;
  view: SessionView;
  here: StationState;
  /** Opens what a station may need besides its work. */
  more: (of: MoreOf) => void;
  /** Beside the work: the station's name, what else is done here. */
  head: ReactNode;
  foot: ReactNode;
  /** Over the work: the coach's word, the end of the session. */
  top: ReactNode;
  /** What is left to do here once everybody is through; nothing on a rack's own tablet. */
  after: ReactNode;
}

/** Whom and what the sheet is about. */
export interface MoreOf {
  slotId: string;
  who: { athleteId: string; name: string } | undefined;
  /** What can be said of the set. */
  set: ReadonlyArray<{ name: string; run: () => void }>;
}

/** The two columns that every work stands in. */
export function StationFrame({
  head,
  foot,
  aside,
  children,
}: {
  head: ReactNode;
  foot: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="station grid min-h-dvh text-[17px] md:h-dvh md:grid-cols-[minmax(0,1fr)_300px]">
      <main className="flex min-w-0 flex-col overflow-auto p-4 md:p-6">{children}</main>
      <aside className="flex flex-col gap-3 overflow-auto border-rule bg-base-200 p-4 md:border-l">
        {head}
        {aside}
        {foot}
      </aside>
    </div>
  );
}
