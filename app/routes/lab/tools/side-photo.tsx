import { sidePhotoWorking, thighFromPhoto } from "../../../../core/boxsquat/photo";
import { boxHeightFromTrial } from "../../../../core/boxsquat/stack";
import { plainNumber } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { PhotoMarks } from "../../../ui/photo-marks";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { photoMarks } from "./marks";
import { type ToolProps, valueAt } from "./tool";

const NAMES = ["knee, top", "hip crease", "level, one end", "level, other end"];

/** A side photo marked in the browser: angle of the thigh, height of the crease, next box. */
export function SidePhoto({ address, unit }: ToolProps) {
  const { marks, move, clear } = photoMarks(address, NAMES.length);
  const thighCm = valueAt(address, "thigh", 43, "cm") ?? Number.NaN;
  const seatCm = valueAt(address, "seat", 40, "cm") ?? Number.NaN;
  const [knee, crease, one, other] = marks;
  const found =
    knee && crease
      ? thighFromPhoto({ knee, crease, level: one && other ? [one, other] : undefined, thighCm })
      : undefined;
  const height = found
    ? boxHeightFromTrial({ seatCm, creaseOverKneeCm: found.creaseOverKneeCm })
    : undefined;
  useAnswer(
    found && height !== undefined && Number.isFinite(height)
      ? `thigh ${plainNumber(found.angleDeg, 1)}°, crease ${plainNumber(found.creaseOverKneeCm, 1)} cm over the knee, next box ${plainNumber(height, 1)} cm`
      : undefined,
  );
  return (
    <>
      <form
        className="mb-3 grid max-w-2xl gap-3 sm:grid-cols-3"
        onSubmit={(event) => event.preventDefault()}
      >
        <ToolField
          address={address}
          unit={unit}
          label="Thigh, knee to crease"
          name="thigh"
          kind="cm"
          start={43}
        />
        <ToolField
          address={address}
          unit={unit}
          label="Seat in the photo"
          name="seat"
          kind="cm"
          start={40}
        />
        <button type="button" className="btn self-end" onClick={clear}>
          Clear the marks
        </button>
      </form>
      <PhotoMarks
        names={NAMES}
        marks={marks}
        lines={[
          [0, 1],
          [2, 3],
        ]}
        onChange={move}
      />
      <Figures label="Answers" className="mt-3">
        {found && height !== undefined && Number.isFinite(height) ? (
          <>
            <p className="text-3xl font-bold">
              <Figure
                id="lab/photo"
                working={sidePhotoWorking(found, height, one !== undefined && other !== undefined)}
              >
                {plainNumber(height, 1)} cm
              </Figure>{" "}
              <span className="text-base font-normal">next box</span>
            </p>
            <p className="text-muted">
              Crease {plainNumber(Math.abs(found.creaseOverKneeCm), 1)} cm{" "}
              {found.creaseOverKneeCm < 0 ? "under" : "over"} the knee, thigh at{" "}
              {plainNumber(found.angleDeg, 1)}°.
            </p>
          </>
        ) : (
          <p className="text-muted">
            Camera at knee height, square to the side. Mark the top of the knee and the hip crease;
            two points of a level edge correct a leaning camera.
          </p>
        )}
        {found || !(knee && crease) ? null : (
          <Notice
            kind="problem"
            title="Knee and crease lie on one point, or the thigh has no length."
          />
        )}
      </Figures>
    </>
  );
}
