import { useEffect, useState } from "react";
import { type FoundScreen, findScreen } from "../../offline/kept-screens";
import { Notice, Page } from "../../ui/page";
import { WithoutNetwork } from "../../ui/without-network";
import { WorkingProvider } from "../../ui/working";
import { type CardData, CardDays } from "./card-days";

export function meta() {
  return [{ title: "Without the network · Sprezza" }];
}

/** An athlete's card as this phone kept it. */
export default function OfflineCard() {
  const [found, setFound] = useState<FoundScreen>();
  useEffect(() => void findScreen("/card").then(setFound), []);
  if (!found) return <p className="p-6">Looking on this phone …</p>;
  if (!found.kept) return <WithoutNetwork others={found.others} />;
  const card = JSON.parse(found.kept.text) as CardData;
  return (
    <WorkingProvider>
      <Page title={card.name} facts={card.next?.date}>
        <Notice
          kind="note"
          title={`No network: the card as it was at ${new Date(found.kept.keptAtMs).toLocaleTimeString("en-GB", { timeStyle: "short" })}.`}
        />
        {card.instructions.map((text) => (
          <Notice key={text} kind="warning" title={text} />
        ))}
        {found.others
          .filter((one) => one.path.startsWith("/card/"))
          .map((one) => (
            <p key={one.path} className="my-2">
              <a className="btn btn-primary min-h-14 w-full text-[17px]" href={one.path}>
                Go on: {one.title}
              </a>
            </p>
          ))}
        <CardDays next={card.next} also={card.also} away />
      </Page>
    </WorkingProvider>
  );
}
