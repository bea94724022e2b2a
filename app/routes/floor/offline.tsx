import { useEffect, useState } from "react";
import { type PackedLog, unpackLog } from "../../forms/session-log";
import { type FoundScreen, findScreen } from "../../offline/kept-screens";
import { UnitProvider } from "../../ui/unit";
import { WithoutNetwork } from "../../ui/without-network";
import { WorkingProvider } from "../../ui/working";
import { type FloorProps, FloorScreen } from "./floor-screen";

export function meta() {
  return [{ title: "Without the network · Sprezza" }];
}

/** A floor as this browser kept it: drawn and logged to without the network. */
export default function OfflineFloor() {
  const [found, setFound] = useState<FoundScreen>();
  useEffect(() => {
    const to = new URLSearchParams(location.search).get("to") ?? "";
    void findScreen(to).then(setFound);
  }, []);
  if (!found) return <p className="p-6">Looking in this browser …</p>;
  if (!found.kept) return <WithoutNetwork others={found.others} />;
  const data = unpackLog(found.kept.text as PackedLog<Omit<FloorProps, "sessionId">>);
  return (
    <UnitProvider unit={data.unit}>
      <WorkingProvider>
        <FloorScreen
          {...data}
          sessionId={found.kept.sessionId ?? ""}
          entries={found.entries}
          heard={found.heard}
          serverNowMs={Date.now() + data.serverNowMs - found.kept.keptAtMs}
          changes={[]}
          problem={undefined}
          offline
        />
      </WorkingProvider>
    </UnitProvider>
  );
}
