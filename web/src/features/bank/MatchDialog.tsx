import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import type { BankLineView, MatchBody } from "@fiscalon/contract/bank";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { Combo } from "../../kit/Combo.tsx";
import { Dialog } from "../../kit/Dialog.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Field } from "../../kit/Field.tsx";
import { usePlainSetup } from "../../app/records.ts";
import { bodyOfProposal } from "./proposals.ts";

/** Everything a line of the bank can be: a proposal, something to be posted now, or nothing of these books. */
export function MatchDialog({
  line,
  error,
  onClose,
  onMatch,
}: {
  line: BankLineView;
  error: Error | null;
  onClose: () => void;
  onMatch: (body: MatchBody) => void;
}) {
  const { minorDigits: digits } = useScope();
  const setup = usePlainSetup();
  const [account, setAccount] = useState("");
  const [code, setCode] = useState("");
  const [text, setText] = useState("");
  const [why, setWhy] = useState("");
  const side = line.amount > 0 ? "sale" : "purchase";
  const chooseAccount = (value: string) => {
    setAccount(value);
    const usual = setup?.accounts.find((one) => one.code === value)?.usualCode;
    if (usual && code === "") setCode(usual);
  };
  return (
    <Dialog
      open
      title={`${displayDate(line.date)}, ${displayAmount(line.amount, digits)}`}
      onClose={onClose}
      wide
    >
      <p className="quiet mb-3">{[line.party, line.text, line.reference].filter(Boolean).join(" · ")}</p>
      <ErrorNote error={error} />
      {line.proposals.length > 0 && (
        <>
          <h2 className="mb-1">It may be</h2>
          <ul className="mb-4">
            {line.proposals.map((proposal) => (
              <li
                key={`${proposal.kind} ${proposal.label}`}
                className="flex items-baseline gap-3 border-b border-base-300 py-1.5"
              >
                <span className="num w-12 text-[12.5px]">{proposal.score} %</span>
                <span className="min-w-0 flex-1">
                  {proposal.label}
                  <span className="quiet block text-[12.5px]">
                    {proposal.kind === "wrong-way"
                      ? `This looks like ${line.amount < 0 ? "a payment entered as a receipt" : "a receipt entered as a payment"}. Correct the entry, then match it.`
                      : proposal.reasons.join("; ")}
                  </span>
                </span>
                {proposal.kind !== "wrong-way" && (
                  <button
                    type="button"
                    className="action"
                    onClick={() => onMatch(bodyOfProposal(proposal, digits))}
                  >
                    This is it
                  </button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      <form
        className="mb-4"
        onSubmit={(event) => {
          event.preventDefault();
          onMatch({ post: { account, code: code || null, text } });
        }}
      >
        <h2 className="mb-1">Post it now</h2>
        <div className="flex items-end gap-4">
          <div className="w-[200px]">
            <Combo
              label="Account"
              value={account}
              choices={(setup?.accounts ?? []).map((one) => ({
                value: one.code,
                label: one.name,
                detail: one.code,
              }))}
              onChange={chooseAccount}
            />
          </div>
          <div className="w-[130px]">
            <Combo
              label="Tax code"
              value={code}
              placeholder="none"
              choices={(setup?.codes ?? [])
                .filter((one) => one.direction === "both" || one.direction === side)
                .map((one) => ({ value: one.code, label: one.code, detail: one.name }))}
              onChange={setCode}
            />
          </div>
          <Field
            className="flex-1"
            label="Text"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <button type="submit" className="action" disabled={account === ""}>
            Post
          </button>
        </div>
      </form>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onMatch({ ignore: why });
        }}
      >
        <h2 className="mb-1">Or leave it out</h2>
        <div className="flex items-end gap-4">
          <Field
            className="flex-1"
            label="Why it is none of these books"
            value={why}
            required
            minLength={3}
            onChange={(event) => setWhy(event.target.value)}
          />
          <button type="submit" className="action">
            Leave out
          </button>
          <button type="button" className="action" onClick={onClose}>
            Close
          </button>
        </div>
      </form>
    </Dialog>
  );
}
