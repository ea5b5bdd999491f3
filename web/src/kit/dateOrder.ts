import { createContext, useContext } from "react";
import type { DateOrder } from "@fiscalon/core/calendar/parseDate";

/** The order in which dates are written with numbers where the client is. */
export const DateOrderContext = createContext<DateOrder>("dmy");

export function useDateOrder(): DateOrder {
  return useContext(DateOrderContext);
}

/** A date in the order of the place: 14/07/2026, 07/14/2026 or 2026-07-14. */
export function writtenDate(date: string, order: DateOrder): string {
  const [year, month, day] = date.split("-");
  if (year === undefined || month === undefined || day === undefined || order === "ymd") return date;
  return order === "mdy" ? `${month}/${day}/${year}` : `${day}/${month}/${year}`;
}
