import {
  EXERCISE_LIMITS,
  type Exercise,
  MUSCLES,
  PATTERNS,
  SIDES,
} from "../../core/exercise/exercise";
import { SPEED_CLASSES } from "../../core/exercise/speed-classes";
import { invariant } from "../invariant";

export interface ShippedExercise extends Exercise {
  /** The next easier version, by name; the harder ones are these lines read back. */
  easier: string | undefined;
}

/**
 * The shipped exercises, in our own composition: copied into a team, which changes them freely.
 * Speed class, muscles and what each is left out for are a coach's usual view, a starting point.
 *
 * name | pattern | speed class | main muscles | assisting | sides | gear | left out for | easier
 */
const TABLE = `
Back squat | squat | absolute-strength | quadriceps, glutes | lower back, adductors | both | bar, rack | back, knee | Goblet squat
Front squat | squat | absolute-strength | quadriceps, upper back | glutes, abdominals | both | bar, rack | knee, wrist | Goblet squat
Box squat | squat | strength-speed | glutes, hamstrings | quadriceps, adductors | both | bar, rack, box | back | Goblet box squat
Box squat, bands | squat | strength-speed | glutes, hamstrings | quadriceps, adductors | both | bar, rack, box, bands | back, minor, pregnancy | Box squat
Safety-bar squat | squat | absolute-strength | quadriceps, upper back | glutes, lower back | both | safety bar, rack | knee | Goblet squat
Goblet squat | squat | absolute-strength | quadriceps, glutes | abdominals | both | dumbbell | knee | Bodyweight squat
Goblet box squat | squat | absolute-strength | glutes, quadriceps | abdominals | both | dumbbell, box |  | Bodyweight squat to a box
Bodyweight squat | squat | none | quadriceps, glutes | adductors | both |  |  |
Bodyweight squat to a box | squat | none | glutes, quadriceps | adductors | both | box |  |
Pause squat | squat | absolute-strength | quadriceps, glutes | lower back | both | bar, rack | back, knee | Back squat
Belt squat | squat | absolute-strength | quadriceps, glutes | adductors | both | belt, platform | knee | Goblet squat
Speed squat, free | squat | strength-speed | quadriceps, glutes | lower back | both | bar, rack | back, knee | Bodyweight squat
Deadlift | hinge | absolute-strength | glutes, hamstrings | lower back, lats, forearms | both | bar | back, pregnancy | Romanian deadlift
Deadlift, wide stance | hinge | absolute-strength | glutes, adductors | hamstrings, lower back | both | bar | back, hip, pregnancy | Romanian deadlift
Speed deadlift | hinge | strength-speed | glutes, hamstrings | lower back, lats | both | bar | back | Kettlebell deadlift
Trap-bar deadlift | hinge | absolute-strength | quadriceps, glutes | hamstrings, forearms | both | trap bar | back | Kettlebell deadlift
Kettlebell deadlift | hinge | absolute-strength | glutes, hamstrings | lower back | both | kettlebell |  |
Romanian deadlift | hinge | absolute-strength | hamstrings, glutes | lower back, forearms | both | bar | back | Kettlebell deadlift
Rack pull | hinge | absolute-strength | glutes, lower back | upper back, forearms | both | bar, pulling blocks | back | Romanian deadlift
Good morning | hinge | absolute-strength | hamstrings, lower back | glutes | both | bar, rack | back, pregnancy | Romanian deadlift
Hip thrust | hinge | absolute-strength | glutes | hamstrings | both | bar, bench | pregnancy | Glute bridge
Glute bridge | hinge | none | glutes | hamstrings | both |  |  |
Back extension | hinge | none | lower back, glutes | hamstrings | both | extension bench | back | Glute bridge
Reverse hyper | hinge | none | glutes, lower back | hamstrings | both | hyper bench | back, pregnancy | Back extension
Kettlebell swing | hinge | speed-strength | glutes, hamstrings | lower back, forearms | both | kettlebell | back | Kettlebell deadlift
Nordic lower | hinge | none | hamstrings | glutes, calves | both | pad | knee | Leg curl
Bench press | horizontal-push | absolute-strength | chest, triceps | front shoulders | both | bar, bench | shoulder, wrist | Push-up
Speed bench press | horizontal-push | strength-speed | chest, triceps | front shoulders | both | bar, bench | shoulder, wrist | Push-up
Bench press, close grip | horizontal-push | absolute-strength | triceps, chest | front shoulders | both | bar, bench | shoulder, wrist | Push-up
Bench press, chains | horizontal-push | strength-speed | chest, triceps | front shoulders | both | bar, bench, chains | shoulder, wrist, minor | Speed bench press
Incline bench press | horizontal-push | absolute-strength | chest, front shoulders | triceps | both | bar, incline bench | shoulder | Push-up
Floor press | horizontal-push | absolute-strength | triceps, chest | front shoulders | both | bar, rack | wrist, pregnancy | Push-up
Board press | horizontal-push | absolute-strength | triceps, chest | front shoulders | both | bar, bench, board | shoulder, wrist | Bench press
Dumbbell bench press | horizontal-push | absolute-strength | chest, triceps | front shoulders | both | dumbbells, bench | shoulder | Push-up
Push-up | horizontal-push | none | chest, triceps | front shoulders, abdominals | both |  | wrist | Push-up from a bench
Push-up from a bench | horizontal-push | none | chest, triceps | front shoulders | both | bench |  |
Clap push-up | horizontal-push | speed-strength | chest, triceps | front shoulders | both |  | wrist, shoulder, pregnancy | Push-up
Bench throw | horizontal-push | speed-strength | chest, triceps | front shoulders | both | guided bar, bench | shoulder, wrist, minor | Speed bench press
Dip | horizontal-push | absolute-strength | triceps, chest | front shoulders | both | dip bars | shoulder | Push-up
Bench pull | horizontal-pull | strength-speed | upper back, lats | biceps, side and rear shoulders | both | bar, high bench | pregnancy | Chest-supported row
Chest-supported row | horizontal-pull | absolute-strength | upper back, lats | biceps | both | dumbbells, incline bench | pregnancy |
Barbell row | horizontal-pull | absolute-strength | upper back, lats | lower back, biceps | both | bar | back | Chest-supported row
One-arm row | horizontal-pull | absolute-strength | lats, upper back | biceps, obliques | left-right | dumbbell, bench |  |
Inverted row | horizontal-pull | none | upper back, lats | biceps | both | bar, rack |  |
Cable row | horizontal-pull | absolute-strength | upper back, lats | biceps | both | cable |  |
Face pull | horizontal-pull | none | side and rear shoulders, upper back |  | both | cable |  |
Overhead press | vertical-push | absolute-strength | front shoulders, triceps | abdominals, upper back | both | bar, rack | shoulder, back | Dumbbell press, seated
Push press | vertical-push | strength-speed | front shoulders, triceps | quadriceps, glutes | both | bar, rack | shoulder, back | Overhead press
Push jerk | vertical-push | speed-strength | front shoulders, triceps | quadriceps, glutes | both | bar, rack | shoulder, back, wrist | Push press
Dumbbell press, seated | vertical-push | absolute-strength | front shoulders, triceps | side and rear shoulders | both | dumbbells, bench | shoulder |
Landmine press | vertical-push | absolute-strength | front shoulders, chest | triceps, obliques | left-right | bar, landmine |  |
Pull-up | vertical-pull | absolute-strength | lats | biceps, upper back, forearms | both | pull-up bar | shoulder | Pull-up, band-assisted
Pull-up, band-assisted | vertical-pull | none | lats | biceps, upper back | both | pull-up bar, bands | shoulder | Lat pulldown
Weighted pull-up | vertical-pull | absolute-strength | lats | biceps, upper back, forearms | both | pull-up bar, belt | shoulder | Pull-up
Chin-up | vertical-pull | absolute-strength | lats, biceps | upper back | both | pull-up bar |  | Lat pulldown
Lat pulldown | vertical-pull | none | lats | biceps, upper back | both | cable |  |
Rope climb | vertical-pull | strength-speed | lats, forearms | biceps, abdominals | alternating | rope | shoulder, pregnancy | Pull-up
Split squat | single-leg | absolute-strength | quadriceps, glutes | adductors | left-right | dumbbells | knee |
Rear-foot-raised split squat | single-leg | absolute-strength | quadriceps, glutes | adductors | left-right | dumbbells, bench | knee | Split squat
Walking lunge | single-leg | none | quadriceps, glutes | adductors | alternating | dumbbells | knee | Split squat
Step-up | single-leg | absolute-strength | quadriceps, glutes | calves | left-right | dumbbells, box | knee | Split squat
Single-leg Romanian deadlift | single-leg | none | hamstrings, glutes | lower back | left-right | dumbbell |  | Romanian deadlift
Single-leg squat to a box | single-leg | absolute-strength | quadriceps, glutes | adductors | left-right | box | knee | Step-up
Vertical jump, hands on hips | jump | absolute-speed | quadriceps, glutes, calves | hamstrings | both |  | knee, pregnancy | Ankle hops
Vertical jump from a stop | jump | absolute-speed | quadriceps, glutes | calves | both |  | knee, pregnancy | Ankle hops
Box jump | jump | absolute-speed | quadriceps, glutes, calves | hamstrings | both | box | knee, pregnancy | Vertical jump from a stop
Seated box jump | jump | speed-strength | glutes, quadriceps | calves | both | box | knee, pregnancy | Box jump
Broad jump | jump | absolute-speed | glutes, quadriceps | hamstrings, calves | both |  | knee, pregnancy | Vertical jump from a stop
Trap-bar jump | jump | speed-strength | quadriceps, glutes | calves | both | trap bar | back, knee, minor, pregnancy | Dumbbell jump
Barbell jump squat | jump | speed-strength | quadriceps, glutes | calves | both | bar, rack | back, knee, minor, pregnancy | Dumbbell jump
Dumbbell jump | jump | speed-strength | quadriceps, glutes | calves | both | dumbbells | knee, pregnancy | Vertical jump from a stop
Drop jump | jump | absolute-speed | calves, quadriceps | glutes | both | box | knee, minor, pregnancy | Hurdle hops
Hurdle hops | jump | absolute-speed | calves, quadriceps | glutes | both | hurdles | knee, pregnancy | Ankle hops
Ankle hops | jump | absolute-speed | calves | quadriceps | both |  | knee, pregnancy |
Single-leg hop for distance | jump | absolute-speed | glutes, quadriceps | calves, hamstrings | left-right |  | knee, pregnancy | Broad jump
Approach jump | jump | absolute-speed | calves, quadriceps, glutes | hamstrings | both |  | knee, pregnancy | Vertical jump, hands on hips
Chest pass, medicine ball | throw | absolute-speed | chest, triceps | front shoulders | both | medicine ball | shoulder |
Two-hand slam | throw | absolute-speed | lats, abdominals | triceps | both | slam ball | shoulder, pregnancy |
Overhead throw, backwards | throw | speed-strength | glutes, lower back | hamstrings, front shoulders | both | medicine ball | back, pregnancy | Two-hand throw, forwards
Two-hand throw, forwards | throw | absolute-speed | chest, lats | abdominals, triceps | both | medicine ball | shoulder | Chest pass, medicine ball
Rotational throw | throw | absolute-speed | obliques, glutes | chest, adductors | left-right | medicine ball | back, pregnancy | Chest pass, medicine ball
Shot put stance throw | throw | speed-strength | chest, obliques | triceps, glutes | left-right | medicine ball | shoulder | Rotational throw
Sprint 10 m | sprint | absolute-speed | glutes, hamstrings | quadriceps, calves | alternating | lane | pregnancy | Hill run
Sprint 20 m | sprint | absolute-speed | hamstrings, glutes | quadriceps, calves | alternating | lane | pregnancy | Sprint 10 m
Sprint 30 m, flying start | sprint | absolute-speed | hamstrings, glutes | calves, hip flexors | alternating | lane | pregnancy | Sprint 20 m
Hill run | sprint | speed-strength | glutes, quadriceps | calves | alternating | slope |  |
Sled sprint | sprint | speed-strength | quadriceps, glutes | calves | alternating | sled | pregnancy | Hill run
High pull from blocks | olympic-pull | speed-strength | glutes, upper back | hamstrings, calves | both | bar, pulling blocks | back, shoulder | Speed deadlift
Power clean | olympic-pull | speed-strength | glutes, quadriceps, upper back | hamstrings, calves | both | bar | back, wrist, pregnancy | Hang power clean
Hang power clean | olympic-pull | speed-strength | glutes, upper back | hamstrings, calves | both | bar | back, wrist, pregnancy | Jump shrug
Jump shrug | olympic-pull | speed-strength | glutes, upper back | calves | both | bar | back | Kettlebell swing
Power snatch | olympic-pull | speed-strength | glutes, upper back | side and rear shoulders, hamstrings | both | bar | back, shoulder, pregnancy | High pull from blocks
Farmer walk | carry | none | forearms, upper back | obliques, glutes | alternating | handles |  |
Suitcase carry | carry | none | obliques, forearms | glutes | left-right | kettlebell |  |
Sled drag, backwards | carry | none | quadriceps | calves | alternating | sled |  |
Sled push | carry | strength-speed | quadriceps, glutes | calves, triceps | alternating | sled | pregnancy | Sled drag, backwards
Sandbag bear carry | carry | none | upper back, abdominals | glutes, biceps | alternating | sandbag | back, pregnancy | Farmer walk
Front plank | trunk | none | abdominals | obliques | both |  | pregnancy |
Side plank | trunk | none | obliques | glutes | left-right |  |  |
Hanging leg raise | trunk | none | abdominals, hip flexors | forearms | both | pull-up bar | shoulder, pregnancy | Dead bug
Dead bug | trunk | none | abdominals | hip flexors | alternating |  |  |
Ab wheel | trunk | none | abdominals | lats | both | wheel | back, pregnancy | Front plank
Cable press-out | trunk | none | obliques, abdominals |  | left-right | cable |  |
Standing cable crunch | trunk | none | abdominals |  | both | cable | pregnancy | Dead bug
Leg curl | isolation | none | hamstrings | calves | both | curl bench |  |
Leg extension | isolation | none | quadriceps |  | both | extension seat | knee |
Calf raise | isolation | none | calves |  | both | step |  |
Triceps pushdown | isolation | none | triceps |  | both | cable |  |
Triceps extension, lying | isolation | none | triceps |  | both | bar, bench |  | Triceps pushdown
Biceps curl | isolation | none | biceps | forearms | both | dumbbells |  |
Side raise | isolation | none | side and rear shoulders |  | both | dumbbells | shoulder |
Rear raise, bent over | isolation | none | side and rear shoulders | upper back | both | dumbbells |  |
Band pull-apart | isolation | none | side and rear shoulders, upper back |  | both | bands |  |
Neck hold, four ways | isolation | none | neck |  | both | towel | neck |
Adductor squeeze | isolation | none | adductors |  | both | ball |  |
`;

export const SHIPPED_EXERCISES: readonly ShippedExercise[] = TABLE.trim().split("\n").map(readLine);

function readLine(line: string): ShippedExercise {
  const cells = line.split("|").map((cell) => cell.trim());
  const [name, pattern, speedClass, main, assisting, sides, gear, excludes, easier] = cells;
  invariant(name, `an exercise has a name: ${line}`);
  return {
    name,
    pattern: oneOf(PATTERNS, pattern, line),
    speedClass: oneOf(SPEED_CLASSES, speedClass, line),
    main: listOf(main).map((muscle) => oneOf(MUSCLES, muscle, line)),
    assisting: listOf(assisting).map((muscle) => oneOf(MUSCLES, muscle, line)),
    sides: oneOf(SIDES, sides, line),
    gear: listOf(gear),
    excludes: listOf(excludes).map((limit) => oneOf(EXERCISE_LIMITS, limit, line)),
    easier: easier || undefined,
  };
}

function listOf(cell: string | undefined): string[] {
  return (cell ?? "").split(",").flatMap((one) => (one.trim() === "" ? [] : [one.trim()]));
}

function oneOf<T extends string>(all: readonly T[], text: string | undefined, line: string): T {
  const found = all.find((one) => one === text);
  invariant(found !== undefined, `"${text}" is no word of this column: ${line}`);
  return found;
}
