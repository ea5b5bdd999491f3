import type { Caller } from "./caller.ts";
import { addDays } from "./quarters.ts";

interface Finding {
  key: string;
  accepted: object | null;
}

/** Accepts what was found, seals and files a period, and where told settles and pays it two days before it is due. */
export async function closePeriod(
  call: Caller,
  registration: string,
  end: string,
  { reason, reference, settle }: { reason: string; reference?: string; settle: boolean },
): Promise<void> {
  const period = `${registration}/returns/${end}`;
  const { findings } = await call<{ findings: Finding[] }>("GET", period);
  for (const finding of findings.filter((one) => one.accepted === null)) {
    await call("POST", `${period}/acceptances`, { key: finding.key, reason });
  }
  await call("POST", `${period}/seal`);
  const filed = await call<{ net: number; due: string }>("POST", `${period}/file`, {
    declared: true,
    ...(reference === undefined ? {} : { reference }),
  });
  if (!settle) return;
  const settlement = `${registration}/settlements/${end}`;
  await call("POST", settlement);
  if (filed.net === 0) return;
  await call("POST", `${settlement}/payments`, {
    date: addDays(filed.due, -2),
    kind: filed.net < 0 ? "refund" : "payment",
    amount: (Math.abs(filed.net) / 100).toFixed(2),
    reference: "bank transfer",
  });
}
