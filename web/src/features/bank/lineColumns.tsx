import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import clsx from "clsx";
import type { BankLineView } from "@fiscalon/contract/bank";
import { Figure } from "../../kit/Figure.tsx";
import type { Column } from "../../kit/useGridTable.ts";
import { isSure } from "@fiscalon/core/agree/bankMatching";
import { Tip } from "../../kit/Tip.tsx";

/** What is done with one line. */
export interface LineActs {
  accept: (line: BankLineView) => void;
  choose: (line: BankLineView) => void;
  takeBack: (line: BankLineView) => void;
}

/** The columns of the lines of the bank, and beside each what it is in the books. */
export function lineColumns(digits: number, acts: LineActs): Column<BankLineView>[] {
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, cell: ({ date }) => displayDate(date) },
    {
      id: "says",
      head: "The bank says",
      width: 150,
      grow: 1,
      always: true,
      cell: ({ party, text, reference }) => (
        <Tip reached={false} words={[party, text, reference].filter(Boolean).join(" · ")}>
          {party} <span className="quiet">{text}</span>
        </Tip>
      ),
    },
    {
      id: "amount",
      head: "Amount",
      width: 104,
      amount: true,
      cell: (line) => (
        <Figure
          amount={line.amount}
          digits={digits}
          of={line.entry === null ? lineStep(line, digits) : `entry/${line.entry}`}
          label={`Amount of ${displayDate(line.date)}`}
        />
      ),
    },
    {
      id: "books",
      head: "In the books",
      width: 200,
      grow: 1.3,
      cell: (line) => (line.state === "open" ? <Best line={line} /> : line.label),
    },
    { id: "act", head: "", width: 146, cell: (line) => <Acts line={line} acts={acts} /> },
  ];
}

function Acts({ line, acts }: { line: BankLineView; acts: LineActs }) {
  if (line.state !== "open") {
    return (
      <button type="button" className="word-link" onClick={() => acts.takeBack(line)}>
        take back
      </button>
    );
  }
  const [best] = line.proposals;
  return (
    <span className="flex gap-3">
      {best && best.kind !== "wrong-way" && (
        <button type="button" className="word-link" onClick={() => acts.accept(line)}>
          Accept
        </button>
      )}
      <button type="button" className="word-link" onClick={() => acts.choose(line)}>
        Choose …
      </button>
    </span>
  );
}

function Best({ line }: { line: BankLineView }) {
  const [best] = line.proposals;
  if (!best) return <span className="quiet">nothing in the books fits</span>;
  const turned = best.kind === "wrong-way";
  return (
    <Tip reached={false} words={best.reasons.join("; ")}>
      {turned ? (
        <span className="text-error">other way round in the books: {best.label}</span>
      ) : (
        <>
          <span
            className={clsx("num mr-2 text-[12px]", isSure(line.proposals) ? "text-success" : "text-warning")}
          >
            {best.score} %
          </span>
          {best.label} <span className="quiet">· {best.reasons[0]}</span>
        </>
      )}
    </Tip>
  );
}

function lineStep(line: BankLineView, digits: number) {
  return {
    ref: `bank-line/${line.id}`,
    title: `Line of the bank, ${line.date}`,
    amount: line.amount,
    digits,
    words: [
      [line.party, line.text, line.reference].filter(Boolean).join(" · "),
      "Not matched yet, so it is in no balance of the ledger.",
    ],
    parts: [],
    arithmetic: [],
  };
}
