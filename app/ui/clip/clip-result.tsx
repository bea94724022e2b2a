import { reachesSeat } from "../../../core/track/clip";
import type { ClipRep } from "../../../core/track/speeds";
import { plainNumber } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { SpeedStrip } from "../speed-strip";
import { formatClipTime } from "./clip-time";

/** A clip's reps: the strip, and a table with what each may be off by and what that is made of. */
export function ClipReps({
  reps,
  seatM,
  onShow,
  backs,
  onBack,
}: {
  reps: readonly ClipRep[];
  /** Bar height with the athlete on the seat, m; undefined where it was not marked. */
  seatM: number | undefined;
  /** Goes to a time of the film, s as it was filmed. */
  onShow: (realS: number) => void;
  /** The back's lean at the bottom of each rep, degrees, where it was marked. */
  backs: ReadonlyArray<number | undefined>;
  /** Asks for the two points of a rep's back. */
  onBack: (rep: number) => void;
}) {
  const counted = reps.filter(({ rep }) => rep.outcome === "counted");
  return (
    <>
      <SpeedStrip
        reps={counted.map(({ rep }, i) => ({ number: i + 1, velocityMps: rep.mcvMps }))}
        target={undefined}
        height={96}
        label={`${counted.length} reps from video: ${counted.map(({ rep }) => formatVelocity(rep.mcvMps)).join(", ")} m/s`}
      />
      <div className="overflow-x-auto">
        <table className="ledger">
          <caption className="sr-only">Reps of the clip</caption>
          <thead>
            <tr>
              <th scope="col">Rep</th>
              <th scope="col">Drive begins</th>
              <th scope="col" className="!text-right">
                Mean, m/s
              </th>
              <th scope="col" className="!text-right">
                90 % within
              </th>
              <th scope="col" className="!text-right">
                Peak, m/s
              </th>
              <th scope="col" className="!text-right">
                Way, cm
              </th>
              <th scope="col" className="!text-right">
                Stop, s
              </th>
              {seatM === undefined ? null : <th scope="col">Seat</th>}
              <th scope="col">Back</th>
              <th scope="col">Off by: places, scale, pictures</th>
            </tr>
          </thead>
          <tbody>
            {reps.map(({ rep, within90Mps, ofPlacesMps, ofScaleMps, ofRateMps }, i) => (
              <tr key={rep.startS}>
                <th scope="row">
                  {rep.outcome === "failed"
                    ? "failed"
                    : counted.findIndex((one) => one.rep === rep) + 1}
                  {rep.short ? " short" : ""}
                </th>
                <td>
                  <button
                    type="button"
                    className="link"
                    onClick={() => onShow(rep.startS)}
                    aria-label={`Show the picture at ${formatClipTime(rep.startS)}`}
                  >
                    {formatClipTime(rep.startS)}
                  </button>
                </td>
                <td className="text-right font-bold">{formatVelocity(rep.mcvMps)}</td>
                {/* Rounded up: no reading is without error. */}
                <td className="text-right">
                  ± {formatVelocity(Math.ceil(100 * within90Mps) / 100)}
                </td>
                <td className="text-right">{formatVelocity(rep.pvMps)}</td>
                <td className="text-right">{plainNumber(100 * rep.rangeM, 0)}</td>
                <td className="text-right">
                  {rep.pauseS === undefined ? "" : rep.pauseS.toFixed(2)}
                </td>
                {seatM === undefined ? null : <td>{seatWords(rep.bottomM - seatM)}</td>}
                <td>
                  <button
                    type="button"
                    className="link"
                    onClick={() => onBack(i)}
                    aria-label={`Mark the back at the bottom of rep ${i + 1}`}
                  >
                    {backs[i] === undefined ? "mark" : `${backs[i]?.toFixed(0)}°`}
                  </button>
                </td>
                <td className="text-muted">
                  {[ofPlacesMps, ofScaleMps, ofRateMps].map((mps) => mps.toFixed(3)).join(" · ")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

const seatWords = (overM: number) =>
  reachesSeat(overM) ? "reached" : `${plainNumber(100 * overM, 1)} cm above`;
