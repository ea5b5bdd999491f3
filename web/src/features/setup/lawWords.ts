import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { dueInWords } from "@fiscalon/core/calendar/dueInWords";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { Packs } from "@fiscalon/core/model/packs";

/** A change of the law as a sentence. */
export function changeInWords(change: LawChange, pack: JurisdictionPack, packs: Packs): string {
  switch (change.kind) {
    case "confirm":
      return `Confirmed: ${subjectInWords(change.subject, packs)}`;
    case "rate":
      return `${packs.rateName(change.schedule)}: ${change.rate} from ${until(change)}`;
    case "due": {
      const whose = [change.frequency, change.levy].filter((one) => one !== null).join(", ");
      return `Due day${whose === "" ? "" : ` (${whose})`} of periods that end from ${until(change.ends)}: ${dueInWords(change)}`;
    }
    case "title": {
      const form = pack.forms.find(({ id }) => id === change.form)?.name ?? change.form;
      return `Box ${change.box} of ${form}: ${change.title}`;
    }
  }
}

/** "1 Apr 2026 on", "1 Apr to 30 Jun 2026". */
export function until({ from, to }: { from: string; to: string | null }): string {
  return `${displayDate(from)}${to === null ? " on" : ` to ${displayDate(to)}`}`;
}

function subjectInWords(subject: string, packs: Packs): string {
  const [kind = "", first = "", ...rest] = subject.split("/");
  if (kind === "rate") return `${packs.rateName(first)} from ${displayDate(rest.join("/"))}`;
  if (kind === "box") return `box ${rest.join("/")}`;
  if (kind === "due") return "a due day";
  return [first, ...rest].join("/");
}
