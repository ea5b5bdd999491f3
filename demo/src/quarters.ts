/** Dates of the demonstration, all relative to today. */
export interface Quarter {
  from: string;
  to: string;
}

const iso = (year: number, month: number, day: number) =>
  new Date(Date.UTC(year, month, day)).toISOString().slice(0, 10);

/** The five complete quarters before today and the running one, ending on the month ends that make the last one just due. */
export function quartersAround(today: string): Quarter[] {
  const year = Number(today.slice(0, 4));
  const month = Number(today.slice(5, 7)) - 1;
  return [-5, -4, -3, -2, -1, 0].map((back) => ({
    from: iso(year, month + back * 3, 1),
    to: iso(year, month + back * 3 + 3, 0),
  }));
}

/** The same of the calendar: for authorities whose quarters end in March, June, September and December. */
export function calendarQuartersAround(today: string): Quarter[] {
  const year = Number(today.slice(0, 4));
  const first = Math.floor((Number(today.slice(5, 7)) - 1) / 3) * 3;
  return [-5, -4, -3, -2, -1, 0].map((back) => ({
    from: iso(year, first + back * 3, 1),
    to: iso(year, first + back * 3 + 3, 0),
  }));
}

export function addDays(date: string, days: number): string {
  return new Date(Date.parse(date) + days * 86_400_000).toISOString().slice(0, 10);
}

export function daysIn({ from, to }: Quarter): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000) + 1;
}
