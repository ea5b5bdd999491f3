import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { Lock } from "lucide-react";
import { displayAmount } from "@fiscalon/core/money/amount";
import { Figure } from "../kit/Figure.tsx";
import { today } from "../kit/format.ts";
import { useScope } from "./scope.ts";
import { usePosition } from "./usePosition.ts";

/** The bottom edge: output tax, input tax and net of the period, live while a document is typed. */
export function PositionBar() {
  const { client, registration, period, minorDigits, draft } = useScope();
  const here = usePosition();
  if (!registration || !period) {
    return (
      <footer className="no-print flex h-[35px] shrink-0 items-center border-t border-base-300 bg-base-200 px-6 quiet">
        Amounts in {client?.currency}
      </footer>
    );
  }
  const { output, input, net } = here ?? period;
  const of = (figure: string) => (here ? null : `position/${registration.id}/${period.to}/${figure}`);
  const locked = ["sealed", "filed", "settled"].includes(period.state);
  return (
    <footer
      aria-label="Position of the period"
      className="no-print flex h-[35px] shrink-0 items-center gap-6 border-t border-base-300 bg-base-200 px-6"
    >
      <span>
        <span className="quiet mr-2">Output</span>
        <Figure
          amount={output}
          digits={minorDigits}
          of={of("output")}
          className="font-semibold"
          label="Output tax"
        />
      </span>
      <span>
        <span className="quiet mr-2">Input</span>
        <Figure
          amount={input}
          digits={minorDigits}
          of={of("input")}
          className="font-semibold"
          label="Input tax"
        />
      </span>
      <span>
        <span className="quiet mr-2">{net < 0 ? "Net to reclaim" : "Net to pay"}</span>
        <Figure
          amount={Math.abs(net)}
          digits={minorDigits}
          of={of("net")}
          className="font-semibold text-primary"
          label="Net"
        />
      </span>
      {here && (
        <span className="quiet text-[12px]">
          with this document: {displayAmount(here.net - period.net, minorDigits)}
        </span>
      )}
      <span className="quiet ml-auto text-[12.5px]">
        {displayDate(today())}, {client?.zone.split("/").at(-1)?.replaceAll("_", " ")}
      </span>
      <span className="quiet flex items-center gap-1.5 text-[12.5px]">
        {locked && <Lock size={13} aria-hidden />}
        {draft ? draft.saved : "All saved"} · {locked ? period.state : "not sealed"}
      </span>
    </footer>
  );
}
