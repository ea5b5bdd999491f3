import type { Caller } from "./caller.ts";
import { linesOfOpenItems, payThroughBank } from "./cashFlow.ts";
import { addDays } from "./quarters.ts";
import { Random } from "./random.ts";

const BANK = "SIM-20-48-86-1001";
const MERCHANT = "SALTMARSH-1";

/** The card terminal of the studio's shop since the quarter that is due, and the bank everything ends up at. */
export async function saltmarshFeeds(
  call: Caller,
  simulators: Caller,
  client: number,
  due: { from: string; to: string },
  today: string,
): Promise<void> {
  await simulators("PUT", `/terminal/merchants/${MERCHANT}`, {
    key: "invented-key",
    zone: "Europe/London",
    currency: "GBP",
    from: addDays(due.from, -3),
    perDay: 14,
    open: 10,
    close: 25.2,
    items: [
      { name: "Pottery", tax: "VAT 20 %", from: 1200, to: 6400 },
      { name: "Studio class", tax: "VAT 20 %", from: 2600, to: 6500 },
      { name: "Booklet", tax: "zero", from: 600, to: 1400 },
    ],
    surchargePercent: 0.8,
    feePercent: 1.7,
    feeFixed: 4,
    bankAccount: BANK,
  });
  const { id, mapping } = await call<{ id: number; mapping: object }>(
    "POST",
    `/clients/${client}/terminals`,
    {
      merchant: MERCHANT,
      key: "invented-key",
      name: "Shop",
      zone: "Europe/London",
      cutOff: "04:00",
      start: due.from,
    },
  );
  await call("PUT", `/clients/${client}/terminals/${id}/mapping`, {
    mapping: {
      ...mapping,
      taxes: {
        "VAT 20 %": { code: "S20", account: "4000" },
        zero: { code: "Z", account: "4050" },
      },
    },
  });
  await call("POST", `/clients/${client}/terminals/${id}/fetch`);
  await bank(call, simulators, client, today);
}

async function bank(call: Caller, simulators: Caller, client: number, today: string): Promise<void> {
  const random = new Random(20_260_909);
  const before = addDays(today, -21);
  const old = await linesOfOpenItems(call, client, "GBP", random, before);
  await payThroughBank(call, simulators, client, BANK, old);
  const recent = (await linesOfOpenItems(call, client, "GBP", random, addDays(today, -1))).map((line) => ({
    ...line,
    date: line.date <= before ? addDays(before, 1 + (((line.amount % 17) + 17) % 17)) : line.date,
  }));
  const fees = [60, 30, 0].map((back) => ({
    id: `FEE-${back}`,
    date: addDays(today, -back - 4),
    amount: -850,
    currency: "GBP",
    party: "",
    text: "Monthly account fee",
    reference: "",
  }));
  const deposit = {
    id: "DEP-1",
    date: addDays(today, -6),
    amount: -12_500,
    currency: "GBP",
    party: "Harbour Lane Gallery",
    text: "Deposit returned",
    reference: "",
  };
  await simulators("PUT", `/bank/accounts/${BANK}/lines`, [...recent, ...fees, deposit]);
  await call("POST", `/clients/${client}/bank/1000/fetch`);
  const {
    rows: [contact],
  } = await call<{ rows: { id: number }[] }>("GET", `/clients/${client}/contacts?search=Harbour`);
  await call("POST", `/clients/${client}/payments`, {
    kind: "receipt",
    date: addDays(today, -6),
    amount: "125.00",
    contact: contact?.id,
    reference: "entered the wrong way round",
    allocations: [],
  });
}
