import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addDays } from "@fiscalon/core/calendar/date";
import { doubtsOfUses, rateChangeAhead } from "@fiscalon/core/jurisdictions/doubtsInUse";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { RateSchedules, TaxCode } from "@fiscalon/core/model/taxCode";
import { usePacks } from "../../api/packs.ts";
import { DoubtMark } from "../../kit/DoubtMark.tsx";
import { today } from "../../kit/format.ts";

/** How many days before it a change of a rate is told. */
const AHEAD = 60;

/** What to know of a code as it is today: what of it should be looked up, and the change of its rate ahead. */
export function CodeMarks({ code, schedules }: { code: TaxCode; schedules: RateSchedules }) {
  const packs = usePacks();
  const day = today();
  const book = { schedules, rateName: (id: string) => packs.rateName(id) };
  const members = expandCode({ ...code, variants: [] });
  const doubts = doubtsOfUses(
    members.map((member) => ({ code: member, from: day, to: day })),
    packs,
    book,
  );
  const ahead = members
    .map((member) => rateChangeAhead(member, book, day, addDays(day, AHEAD)))
    .find((change) => change !== undefined);
  return (
    <>
      {doubts.length > 0 && (
        <DoubtMark
          className="ml-1.5"
          says={doubts
            .map(({ about, figure, says }) => `${about}${figure ? `: ${figure}` : ""}, ${says}`)
            .join("; ")}
        />
      )}
      {ahead && (
        <span className="block text-[11.5px] font-semibold">
          {ahead.name}: {ahead.to === null ? `${ahead.from} ends` : `${ahead.from} becomes ${ahead.to}`} on{" "}
          {displayDate(ahead.on)}
        </span>
      )}
    </>
  );
}
