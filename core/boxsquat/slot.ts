import { plainNumber } from "../units/mass";
import type { Contact, Purpose, Role } from "./styles";

/** What a slot on the box is for and how it is done; percentages and cues follow from it. */
export interface BoxSlot {
  purpose: Purpose;
  role: Role;
  styleId: string;
  contact: Contact;
  /** A shorter stop is a bounce; undefined: nothing is flagged. */
  smallestStopS?: number;
  /** Off the athlete's own height: over it a high box, under it below parallel, cm. */
  offsetCm?: number;
}

/** Nobody asks for a seat further off the athlete's own height, cm. */
export const MOST_OFFSET_CM = { under: 10, over: 25 } as const;

/** A height off the athlete's own in words; empty at the own height. */
export const offsetWords = (offsetCm: number | undefined): string =>
  offsetCm === undefined || offsetCm === 0
    ? ""
    : offsetCm > 0
      ? `${plainNumber(offsetCm, 1)} cm over the own height`
      : `${plainNumber(-offsetCm, 1)} cm under the own height`;

/** Start of a box slot: the widest used style, as main lift, without a smallest stop. */
export const NEW_BOX_SLOT: BoxSlot = {
  purpose: "power",
  role: "main",
  styleId: "wide",
  contact: "weight",
};
