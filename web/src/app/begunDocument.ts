import type { ContactView } from "@fiscalon/contract/views";

/** What another screen knows of a document that is still to be typed; handed over in the state of the address. */
export interface BegunDocument {
  number: string;
  date: string;
  contact: ContactView | null;
  lines: { text: string; amount: string; tax: string }[];
  note: string;
}
