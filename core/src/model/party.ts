import type { CalendarDate } from "../calendar/date.ts";

/** Codes kept as usual, by side. */
export interface UsualCodes {
  saleCode: string | null;
  purchaseCode: string | null;
}

/** Where one of our places is. `region` as typed: a state, a province. */
export interface Site extends Partial<UsualCodes> {
  country: string;
  region: string | null;
  name?: string;
  /** Regions of the country the business is at home in beside this one; a star after the dash: all of a state. */
  engaged?: readonly string[];
}

/** What matters of the other side for tax. `standing` by levy: registered, resale, government … */
export interface Party extends Partial<UsualCodes> {
  country: string | null;
  region: string | null;
  registered: boolean | null;
  taxNumber: string | null;
  standing: Readonly<Record<string, string>>;
  name?: string;
}

/** What an item says of the lines that name it. */
export interface ItemDefaults extends UsualCodes {
  name: string;
  taxClass: string | null;
  supply: "goods" | "services" | null;
}

/** A place of the business with the codes usual there. */
export type PlaceSetup = Required<Omit<Site, "engaged">> &
  Pick<Site, "engaged"> & {
    id: number;
    closedOn: CalendarDate | null;
  };
