import { useEffect, useState } from "react";
import { type KeptScreen, keptScreen, keptScreens } from "../../offline/kept-screens";
import { UnitProvider } from "../../ui/unit";
import { WithoutNetwork } from "../../ui/without-network";
import { WorkingProvider } from "../../ui/working";
import { type FloorProps, FloorScreen } from "./floor-screen";

export function meta() {
  return [{ title: "Without the network · Sprezza" }];
}

/** A floor as this browser kept it: drawn and logged to without the network. */
export default function OfflineFloor() {
  const [found, setFound] = useState<{ kept: KeptScreen | undefined; others: KeptScreen[] }>();
  useEffect(() => {
    const to = new URLSearchParams(location.search).get("to") ?? "";
    Promise.all([keptScreen(to.split("?")[0] ?? ""), keptScreens()]).then(
      ([kept, others]) => setFound({ kept, others }),
      () => setFound({ kept: undefined, others: [] }),
    );
  }, []);
  if (!found) return <p className="p-6">Looking in this browser …</p>;
  if (!found.kept) return <WithoutNetwork others={found.others} />;
  const data = JSON.parse(JSON.parse(found.kept.text)) as Omit<FloorProps, "sessionId">;
  return (
    <UnitProvider unit={data.unit}>
      <WorkingProvider>
        <FloorScreen
          {...data}
          sessionId={found.kept.sessionId ?? ""}
          serverNowMs={Date.now() + data.serverNowMs - found.kept.keptAtMs}
          changes={[]}
          problem={undefined}
          offline
        />
      </WorkingProvider>
    </UnitProvider>
  );
}
