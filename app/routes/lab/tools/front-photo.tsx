import { boxFaultNamed } from "../../../../core/boxsquat/box-faults";
import {
  frontLegWorking,
  kneeWords,
  legsFromPhoto,
  shinWords,
} from "../../../../core/boxsquat/photo";
import { Notice } from "../../../ui/page";
import { type Mark, PhotoMarks } from "../../../ui/photo-marks";
import { Figure, Figures } from "../../../ui/working";
import { useAnswer } from "./fields";
import { photoMarks } from "./marks";
import type { ToolProps } from "./tool";

const NAMES = [
  "left ankle in the picture",
  "left knee",
  "left hip",
  "right ankle in the picture",
  "right knee",
  "right hip",
  "level, one end",
  "level, other end",
];

/** A front photo marked in the browser: tilt of the shins, and the knees' line. */
export function FrontPhoto({ address }: ToolProps) {
  const { marks, move, clear } = photoMarks(address, NAMES.length);
  const [a, b, c, d, e, f, one, other] = marks;
  const whole = a && b && c && d && e && f;
  const level: [Mark, Mark] | undefined = one && other ? [one, other] : undefined;
  const legs = whole
    ? legsFromPhoto({
        legs: [
          { ankle: a, knee: b, hip: c },
          { ankle: d, knee: e, hip: f },
        ],
        level,
      })
    : undefined;
  useAnswer(
    legs
      ? `knees ${kneeWords(legs[0])} and ${kneeWords(legs[1])} of hip to ankle, shins ${shinWords(legs[0])} and ${shinWords(legs[1])}`
      : undefined,
  );
  return (
    <>
      <p className="mb-3">
        <button type="button" className="btn" onClick={clear}>
          Clear the marks
        </button>
      </p>
      <PhotoMarks
        names={NAMES}
        marks={marks}
        lines={[
          [0, 1],
          [1, 2],
          [3, 4],
          [4, 5],
          [6, 7],
        ]}
        onChange={move}
      />
      <Figures label="Answers" className="mt-3">
        {legs ? (
          <>
            <table className="ledger max-w-lg">
              <thead>
                <tr>
                  <th scope="col">In the picture</th>
                  <th scope="col">Knee, of the line hip to ankle</th>
                  <th scope="col">Shin, off the upright</th>
                </tr>
              </thead>
              <tbody>
                {legs.map((leg, i) => {
                  const side = i === 0 ? "left" : "right";
                  return (
                    <tr key={side}>
                      <th scope="row" className="!text-base-content">
                        {side}
                      </th>
                      <td>
                        <Figure
                          id={`lab/front/${side}`}
                          working={frontLegWorking(leg, side, level !== undefined)}
                        >
                          {kneeWords(leg)}
                        </Figure>
                      </td>
                      <td>{shinWords(leg)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
            <p className="mt-2 text-muted">
              A prompt to look, never a verdict. Knees in: "{boxFaultNamed("Knees in")?.cue}".
            </p>
          </>
        ) : (
          <p className="text-muted">
            Camera at knee height, square to the front, both feet in the picture. Mark ankle, knee
            and hip of the leg on the left of the picture, then of the other; two points of a level
            edge correct a leaning camera.
          </p>
        )}
        {legs || !whole ? null : (
          <Notice
            kind="problem"
            title="Two marks of a leg lie on one point, the legs are swapped, or the edge stands upright."
          />
        )}
      </Figures>
    </>
  );
}
