import type { Caller } from "./caller.ts";
import { addDays } from "./quarters.ts";
import type { Random } from "./random.ts";

interface OpenItem {
  document: number;
  kind: string;
  number: string;
  date: string;
  party: string;
  open: number;
}
interface WorldLine {
  id: string;
  date: string;
  amount: number;
  currency: string;
  party: string;
  text: string;
  reference: string;
}

/** Lines a bank would show had most of the open documents been paid, some days later, by most parties. */
export async function linesOfOpenItems(
  call: Caller,
  client: number,
  currency: string,
  random: Random,
  until: string,
): Promise<WorldLine[]> {
  const lines: WorldLine[] = [];
  for (let offset = 0; ; offset += 500) {
    const page = await call<{ total: number; rows: OpenItem[] }>(
      "GET",
      `/clients/${client}/open-items?limit=500&offset=${offset}&on=${until}`,
    );
    for (const item of page.rows) {
      if (item.kind.endsWith("credit-note")) continue;
      const date = addDays(item.date, random.whole(6, 41));
      if (date > until || random.next() < 0.05) continue;
      const comesIn = item.kind === "sales-invoice";
      lines.push({
        id: `B${item.document}`,
        date,
        amount: comesIn ? item.open : -item.open,
        currency,
        party: item.party,
        text: random.next() < 0.85 ? `Invoice ${item.number}` : "Thank you",
        reference: "",
      });
    }
    if (offset + page.rows.length >= page.total) return lines;
  }
}

/** Connects the bank and takes everything up to a day in; what is sure is matched. */
export async function payThroughBank(
  call: Caller,
  simulators: Caller,
  client: number,
  number: string,
  lines: readonly WorldLine[],
): Promise<void> {
  await simulators("PUT", `/bank/accounts/${number}/lines`, lines);
  await call("POST", `/clients/${client}/bank`, { account: "1000", number });
  await call("POST", `/clients/${client}/bank/1000/fetch`);
  await call("POST", `/clients/${client}/bank/accept`, { account: "1000" });
}
