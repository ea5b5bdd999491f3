import type { Caller } from "./caller.ts";
import { closePeriod } from "./closePeriod.ts";

interface Registration {
  id: number;
  number: string | null;
}
interface Period {
  to: string;
  state: string;
}
interface Return {
  findings: { severity: string }[];
  electronic: boolean;
}

/**
 * Files, settles and pays what an office would have by now: for each registration every period that has ended but the
 * last ones, `behind` of them. Stops at the first that holds something to put right.
 */
export async function closeBooks(
  call: Caller,
  client: number,
  { behind, today }: { behind: number; today: string },
): Promise<void> {
  const { registrations } = await call<{ registrations: Registration[] }>("GET", `/clients/${client}`);
  for (const { id, number } of registrations) {
    if (number === null) continue;
    const base = `/clients/${client}/registrations/${id}`;
    const periods = await call<Period[]>("GET", `${base}/periods`);
    const ended = periods.filter(({ to, state }) => to < today && state === "open");
    for (const { to } of ended.slice(0, Math.max(0, ended.length - behind))) {
      const { findings, electronic } = await call<Return>("GET", `${base}/returns/${to}`);
      if (findings.some(({ severity }) => severity === "stop")) break;
      await closePeriod(call, base, to, {
        reason: "Checked against the papers of the period.",
        ...(electronic ? {} : { reference: `LT ${to.replaceAll("-", "")} ${id}` }),
        settle: true,
      });
    }
  }
}
