/** How a phone is placed to see a plate all the way; in the words of the one who sets it down. */
export const WHERE_IT_STANDS = [
  "At the side of the rack, square to the bar: the plate looks round, not like an egg.",
  "On a box or a tripod, not in a hand, about as high as the middle of the bar's way, 2.5 to 4 m off.",
  "Well outside the reach of a bar that falls or rolls, and of whoever steps back to spot.",
  "The whole plate stays in the picture from rack to bottom, with a hand's width to spare; bench, box, uprights and spotters hide nothing of it.",
  "60 pictures a second or more; plain speed rather than slow motion; the light behind you.",
  "One trial rep first: measure it, and see that nothing was out of sight.",
  "Room rules and whoever answers for the room come first; ask everybody who may come into the picture.",
];
