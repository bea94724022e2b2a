import type { Contact, Purpose, Role } from "./styles";

/** What a slot on the box is for and how it is done; percentages and cues follow from it. */
export interface BoxSlot {
  purpose: Purpose;
  role: Role;
  styleId: string;
  contact: Contact;
  /** A shorter stop is a bounce; undefined: nothing is flagged. */
  smallestStopS?: number;
}

/** Start of a box slot: the widest used style, as main lift, without a smallest stop. */
export const NEW_BOX_SLOT: BoxSlot = {
  purpose: "power",
  role: "main",
  styleId: "wide",
  contact: "weight",
};
