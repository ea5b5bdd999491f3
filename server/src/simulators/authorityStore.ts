import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { addMonths } from "@fiscalon/core/calendar/date";
import type { RegistrationRecord } from "../db/models.ts";
import { dueDates } from "../books/returns/dueDates.ts";
import { periodRule } from "../books/returns/periodRule.ts";
import type { Practice } from "../practice/practice.ts";
import type { AuthorityStore } from "./authority.ts";

/**
 * The simulated authority knows every registration that is in the application, as the real one knows its
 * taxpayers; what was submitted it keeps in a table of its own.
 */
export function authorityStore(practice: Practice, today: () => string): AuthorityStore {
  const { db } = practice;
  return {
    async periods(vrn) {
      await practice.summaries.settled();
      const row = await db.row<{ definition: string }>(
        "SELECT definition FROM registration_summaries WHERE number = $1 ORDER BY client_id DESC, registration_id DESC",
        [vrn],
      );
      if (!row) return undefined;
      const r = JSON.parse(row.definition) as RegistrationRecord;
      const { packs: known } = await practice.begin();
      const from = addMonths(today(), -60);
      return filingPeriods(periodRule(r), from, addMonths(today(), 3)).map((period) => ({
        start: period.from,
        end: period.to,
        due: dueDates({ packs: known }, r, period.to).due,
      }));
    },
    async submission(vrn, periodKey) {
      const row = await db.row<{ body: string; received: string }>(
        "SELECT body, received FROM authority_submissions WHERE vrn = $1 AND period_key = $2",
        [vrn, periodKey],
      );
      return row
        ? { body: JSON.parse(row.body) as Record<string, unknown>, received: row.received }
        : undefined;
    },
    async keep(vrn, periodKey, body, receipt, received) {
      await db.write((tx) =>
        db.run(
          "INSERT INTO authority_submissions (vrn, period_key, body, receipt, received) VALUES ($1, $2, $3, $4, $5)",
          [vrn, periodKey, JSON.stringify(body), JSON.stringify(receipt), received],
          tx,
        ),
      );
    },
  };
}
