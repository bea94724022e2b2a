import { useEffect, useState } from "react";
import { type PackedLog, unpackLog } from "../../forms/session-log";
import { type FoundScreen, findScreen } from "../../offline/kept-screens";
import { WithoutNetwork } from "../../ui/without-network";
import type { StationData } from "./station-frame";
import { StationScreen } from "./station-screen";

export const handle = { theme: "cellar" as const };

export function meta() {
  return [{ title: "Without the network · Sprezza" }];
}

/** A station as this tablet kept it: drawn and logged to without the network. */
export default function OfflineStation() {
  const [found, setFound] = useState<FoundScreen>();
  useEffect(() => {
    const to = new URLSearchParams(location.search).get("to") ?? "";
    void findScreen(to).then(setFound);
  }, []);
  if (!found) return <p className="p-6 text-[20px]">Looking on this tablet …</p>;
  if (!found.kept) return <WithoutNetwork others={found.others} />;
  const data = unpackLog(found.kept.text as PackedLog<Omit<StationData, "sessionId">>);
  return (
    <StationScreen
      {...data}
      sessionId={found.kept.sessionId ?? ""}
      entries={found.entries}
      heard={found.heard}
      serverNowMs={Date.now() + data.serverNowMs - found.kept.keptAtMs}
    />
  );
}
