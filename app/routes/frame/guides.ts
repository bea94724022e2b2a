/** Drawings that a guide may stand beside: see `guide.tsx`. */
export type Drawing =
  | "strip"
  | "waves"
  | "line"
  | "noise"
  | "plates"
  | "film"
  | "gap"
  | "rungs"
  | "flow";

export interface Guide {
  id: string;
  /** Pages it is of, by address with what is asked there: the first that fits counts. */
  of: RegExp;
  title: string;
  drawing: Drawing;
  /** What the drawing shows, in words. */
  shows: string;
  /** A minute's reading. */
  steps: readonly string[];
}

/** How each page is worked, in a minute. The same words stand in docs/guide/README.md. */
export const GUIDES: readonly Guide[] = [
  {
    id: "groups",
    of: /^\/floor\/groups/,
    title: "Making the day's groups",
    drawing: "flow",
    shows: "Lifters of like loads on one rack, in turns that move the fewest plates.",
    steps: [
      "Tick who is here; who is away or refused stands apart with the reason.",
      "The groups are made from loads, boxes, bars, bands and rests; the plates, pins and mats that move are counted, and what grouping by name would have cost.",
      "Pull somebody to another rack, or pick them and press the rack: the count follows. Put them back with undo.",
      "Begin the day: what is done is never moved again; a late comer is fitted round it.",
    ],
  },
  {
    id: "pairing",
    of: /^\/floor\/pairing/,
    title: "A contrast pairing for many",
    drawing: "gap",
    shows: "Change of a jump over the minutes after the heavy set; from the line on it counts.",
    steps: [
      "Each athlete has a tile with their own clocks: heavy set, gap, jump, rest.",
      "Tap when an item is done; the next clock runs. A tile says when somebody may go, and when a gap was cut short.",
      "Write an output (a height, a distance, a speed): better or worse than the first round is said by a word and a mark.",
      "Own gaps come from the gap test in the Lab; until then published means stand for them, and say so.",
    ],
  },
  {
    id: "floor",
    of: /^\/floor/,
    title: "The floor",
    drawing: "strip",
    shows: "Reps of a set as bars against the wanted speed; the set ended where one fell under.",
    steps: [
      "Choose the day and start it: each station has its lifters, loads, boxes and bands.",
      "Sets appear as tablets and sensors send them. What was only seen is one tap: on speed, fast, slow.",
      "A call waits in the margin with its evidence: t takes it, c changes, d declines with a reason.",
      "The link may drop: tablets keep what is lifted and send it later. End the day, and it stands in Review.",
    ],
  },
  {
    id: "plan",
    of: /^\/plan\/[^/]+/,
    title: "A block on its board",
    drawing: "waves",
    shows:
      "Weeks as columns; each set a bar, as wide as its reps and as high as its share of the max.",
    steps: [
      "Arrows go from cell to cell; Enter goes into the bars, arrows pull them, Enter keeps, Esc puts back.",
      "What is tried is drawn everywhere at once, with the old value dashed: totals, checks, one athlete's loads.",
      "Pull a cell, a cycle's end, a row; or type in the margin. Everything that is pulled can be typed.",
      "Numbers shows the same as loads, by week and athlete; each opens to its working. Publish when it holds: cards and racks take what is published.",
    ],
  },
  {
    id: "plans",
    of: /^\/plan/,
    title: "Plans",
    drawing: "waves",
    shows: "Three weeks of rising percentages, then the wave begins again a little higher.",
    steps: [
      "A plan is one block of a squad or of one athlete, in one room.",
      "New plans begin from a school, a copy, or nothing; what runs today stands first.",
      "A draft is the coaches'. What is published is what athletes see, and changes since are counted.",
    ],
  },
  {
    id: "box",
    of: /^\/athletes\/(box|[^/]+\/box)/,
    title: "On the box",
    drawing: "rungs",
    shows: "The teaching ladder: from a chair to the speed weight, a rung passed when it is sound.",
    steps: [
      "Seat the athlete once, measure seat and crease over the knee: the height for parallel follows, built from the room's boxes and mats.",
      "Choose style and contact; two rehearsed steps with the empty bar come before the first loaded set.",
      "Mark rungs for many at once. Faults tagged at the rack stand here, with the share of the max where they come back.",
      "The back stays as it was on the way down. Pain ends it.",
    ],
  },
  {
    id: "profiles",
    of: /^\/athletes\/(profiles|[^/]+\/profiles)|^\/lab\/profile/,
    title: "Load and speed",
    drawing: "line",
    shows: "Best reps at five loads on a line; where it meets the threshold lies the 1RM by speed.",
    steps: [
      "Test five loads from light to heavy, best rep of each; the next load is proposed.",
      "A rep that was no honest try is left out with a reason and stays in sight.",
      "The bar on the threshold is what the test can tell; it is wide where the heaviest load was light.",
      "A test is dated: later days do not move the line, they are drawn beside it.",
    ],
  },
  {
    id: "athlete",
    of: /^\/athletes\/(?!squads|add|testing-day)[^/]+/,
    title: "One athlete at a glance",
    drawing: "noise",
    shows:
      "Speed at one load by day, in the band in which nine of ten days lie while nothing changes.",
    steps: [
      "From the top: what holds today, the next day's loads, each main lift in one line, box, gap and tests.",
      "Press a heading and its detail opens under it; press again and it closes. [ and ] go to the next of the squad with the same part open.",
      "Calls for this athlete wait in the margin: t, c, d; u takes back.",
      "A dot outside the band is one day. The word beside it says how sure a rise or a fall is.",
    ],
  },
  {
    id: "athletes",
    of: /^\/athletes/,
    title: "The squads' table",
    drawing: "flow",
    shows: "Filter, tick, change: one change for everybody who is ticked.",
    steps: [
      "Sort by any head, choose columns, filter: a stale max, a newer record, a limit. Keep a view under a name in this browser.",
      "A few cells are changed in place: press, type, Enter.",
      "Change several: tick people, and change squad, room or phase at once, or let percentages stand on everybody's newest record.",
      "A testing day is pasted as it stands in a sheet, checked line by line, and kept whole or not at all.",
    ],
  },
  {
    id: "gap-test",
    of: /^\/lab\/gap/,
    title: "The gap test",
    drawing: "gap",
    shows: "Change after each gap with its error; from the dashed line on a change counts.",
    steps: [
      "On one day: baseline trials, a heavy set, then one trial after each gap, by the clock.",
      "Repeat on other days in another order. After each the page says whether a gap is worth its wait, or how many days would tell.",
      "The own gap then stands on the athlete's page, card and in pairings.",
    ],
  },
  {
    id: "video",
    of: /^\/lab\?(.*&)?tool=video\b/,
    title: "Bar speed from a film",
    drawing: "film",
    shows: "The rim of the plate is followed from picture to picture; its size gives the scale.",
    steps: [
      "Stand the phone at the side, as high as the bar at mid-range, and film one trial rep first.",
      "Choose the film; it stays in this browser. Pull the circle onto the plate's rim at the beginning of the set, and cut the set out.",
      "Say how large that plate is and whether the film plays as fast as it was filmed: every speed hangs on both.",
      "Measure. Each rep says what it may be off by. Where the plate is lost nothing is measured: mark it again there and go on.",
      "The same part at a rack, under More, enters the reps as the set; beside a profile test it takes them as that load's.",
    ],
  },
  {
    id: "lab",
    of: /^\/lab/,
    title: "The Lab",
    drawing: "plates",
    shows: "A bar with its plates, worked back to the load and its share of the max.",
    steps: [
      "Choose a question; answers follow as you type. Press the answer for its working.",
      "Fill the fields from an athlete: only numbers go into the address, never the name.",
      "Send the answer to an athlete or a plan; it stands there with the way back to its fields.",
    ],
  },
  {
    id: "wave",
    of: /^\/review\/(wave|trends|pays|block|box)/,
    title: "What weeks of work came to",
    drawing: "noise",
    shows: "Days differ by more than most waves bring: a change is said with how sure it is.",
    steps: [
      "Speeds of all days are carried to one load and to a fresh athlete, and set against the days' own spread.",
      "One wave seldom settles one athlete: not settled is an answer, with how many more days would tell. The squad's mean says more.",
      "Tests before and after are judged by the typical error: your team's, typed, or the athlete's own.",
      "Nothing here is an experiment: what else changed with the weeks is in it.",
    ],
  },
  {
    id: "review",
    of: /^\/review/,
    title: "Review",
    drawing: "strip",
    shows: "Each set on its strip: what was wanted, what was lifted, and why it ended.",
    steps: [
      "Calls stand first, the weightiest on top: arrows choose, t takes, c changes, d declines, u takes back.",
      "What a call does is said before it is pressed; what became of it is shown weeks later.",
      "Below are the sessions: planned against done, rests taken, faults, outputs; printed or taken out as a table.",
      "The week and the notes are pages of their own; health notes stay apart.",
    ],
  },
  {
    id: "gear",
    of: /^\/gear/,
    title: "A room to scale",
    drawing: "plates",
    shows: "A rack's plates on their pegs, and the totals that they build.",
    steps: [
      "Tap a peg to take a pair off, the plus to hang one on; by keys plus, minus, digits and arrows. u takes it back.",
      "Ticks under a rack are the totals it builds; where steps are rough it says which pair would help. Shared plates hang on their own tree: a pair that is hung on a rack comes from there.",
      "Bands are measured with a hanging scale at two lengths or more: a shop's label is no measurement.",
      "Press a piece for its form; every drawing has its table below.",
    ],
  },
  {
    id: "library",
    of: /^\/library/,
    title: "The library",
    drawing: "waves",
    shows: "A recipe is a wave: sets, reps and shares of the max over its weeks.",
    steps: [
      "Exercises, lifts, recipes, complexes, faults and schools of the team: change, copy, put away.",
      "A change is new from now on; what was planned keeps what it had.",
      "A school holds the thresholds on which coaches differ, each with its default.",
    ],
  },
  {
    id: "data",
    of: /^\/data/,
    title: "In and out",
    drawing: "flow",
    shows: "A file is read, checked line by line, and kept whole or not at all.",
    steps: [
      "Streams, reps, earlier sheets and records come in as tables; each line that cannot be read is named.",
      "Everything goes out in open formats, and comes in again the same.",
    ],
  },
  {
    id: "tablets",
    of: /^\/tablets/,
    title: "Tablets at the racks",
    drawing: "flow",
    shows: "A tablet is paired once by a code, and goes to its rack by itself.",
    steps: [
      "Open the address on the tablet, type the code that stands here, choose its rack.",
      "It keeps what is lifted without a link. Take a tablet off, and it shows nobody any more.",
    ],
  },
  {
    id: "people",
    of: /^\/people/,
    title: "People",
    drawing: "flow",
    shows: "A link or a QR code brings somebody in, with what they may do.",
    steps: [
      "Invite coaches, assistants and athletes; a link holds for a fortnight.",
      "Assistants coach without seeing reasons of limits; athletes see their own.",
    ],
  },
  {
    id: "card",
    of: /^\/card/,
    title: "Your card",
    drawing: "strip",
    shows: "A set's reps against the wanted speed.",
    steps: [
      "The next day's work with your own loads; press a load for its working.",
      "Where your coach lets you, train it alone: log a tap a set, without the network too.",
      "Pain: stop, and say so. Your coach and the room's rules go before this page.",
    ],
  },
];

/** @param address the path, with what is asked behind it */
export const guideFor = (address: string): Guide | undefined =>
  GUIDES.find((one) => one.of.test(address));
