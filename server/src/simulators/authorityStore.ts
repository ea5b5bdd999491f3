import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { addMonths } from "@fiscalon/core/calendar/date";
import type { Packs } from "@fiscalon/core/model/packs";
import type { Database } from "../db/database.ts";
import type { RegistrationRecord } from "../db/models.ts";
import { dueDates } from "../books/returns/dueDates.ts";
import { periodRule } from "../books/returns/periodRule.ts";
import type { AuthorityStore } from "./authority.ts";

/**
 * The simulated authority knows every registration that is in the application, as the real one knows its
 * taxpayers; what was submitted it keeps in a table of its own.
 */
export function authorityStore(
  db: Database,
  today: () => string,
  packs: () => Promise<Packs>,
): AuthorityStore {
  return {
    async periods(vrn) {
      const row = await db.models.registrations.findOne({ where: { number: vrn }, order: [["id", "DESC"]] });
      if (!row) return undefined;
      const r = row.get({ plain: true }) as RegistrationRecord;
      const known = await packs();
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
