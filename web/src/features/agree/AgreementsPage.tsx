import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { agreeLineBody } from "@fiscalon/contract/agreements";
import type { AgreementLine } from "@fiscalon/contract/agreements";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileLinks } from "../../kit/FileLinks.tsx";
import { plural, showMoment, showPeriod } from "../../kit/format.ts";
import { TextField } from "../../kit/formFields.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { useTrail } from "../../kit/trailContext.ts";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";
import { AGREEMENTS, useAgreements } from "./useAgreements.ts";

/** Every agreement of the period with both figures, what explains the difference, what is left, and who agreed it. */
export function AgreementsPage() {
  const { client, registration, period, path, minorDigits: digits } = useScope();
  const { data: lines, error } = useQuery(useAgreements());
  const [agreeing, setAgreeing] = useState<AgreementLine | null>(null);
  if (!registration || !period)
    return (
      <Sheet title="Agreements" actions={<AgreeLinks />}>
        <EmptyState title="Nothing to agree yet">
          What the ledger holds and what is declared are compared once there is a registration.
        </EmptyState>
      </Sheet>
    );
  const file = `/api${filled(AGREEMENTS, [client?.id, registration.id, period.to])}/file`;
  const money = (amount: number) => displayAmount(amount, digits);
  return (
    <Sheet
      title={`Agreements, ${showPeriod(period.from, period.to)}`}
      lead="Two figures that come from different sources, what explains the difference, and what is left."
      actions={<AgreeLinks />}
    >
      <ErrorNote error={error} />
      {!lines && !error && <Waiting what="the agreements" />}
      {lines && (
        <>
          <div className="no-print mb-2 flex justify-end gap-4">
            {lines.some(({ sealed }) => sealed) && (
              <FileLinks
                href={file}
                query={{ sealed: "true" }}
                formats={["xlsx", "pdf"]}
                words=" as sealed"
              />
            )}
            <FileLinks href={file} />
          </div>
          <table className="sheet-table">
            <thead>
              <tr>
                <th>Agreement</th>
                <th className="num">One side</th>
                <th className="num">Explained</th>
                <th className="num">Other side</th>
                <th className="num">Left</th>
                <th>State</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {lines.map((line) => (
                <tr key={line.id}>
                  <td>
                    <Link className="word-link" to={path(line.path)}>
                      {line.title}
                    </Link>
                  </td>
                  <td className="num">
                    <SideOf to={path(line.path)} name={line.leftName} amount={money(line.left)} />
                  </td>
                  <td className="num">
                    {line.leftName !== "" && (
                      <Link className="figure" to={path(line.path)}>
                        {money(line.explained)}
                      </Link>
                    )}
                  </td>
                  <td className="num">
                    <SideOf to={path(line.path)} name={line.rightName} amount={money(line.right)} />
                  </td>
                  <td className={line.rest === 0 ? "num" : "num text-warning"}>
                    {line.leftName !== "" && (
                      <Link className="figure" to={path(line.path)}>
                        {money(line.rest)}
                      </Link>
                    )}
                  </td>
                  <td className={line.agreed || line.since ? "!whitespace-normal" : ""}>
                    <StateOf line={line} digits={digits} />
                    <Since line={line} digits={digits} />
                  </td>
                  <td>
                    {line.state !== null && line.state !== "agreed" && line.state !== "accepted" && (
                      <button
                        type="button"
                        className="word-link"
                        aria-label={`Agree ${line.title}`}
                        onClick={() => setAgreeing(line)}
                      >
                        Agree …
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {agreeing && (
        <AgreeLineDialog
          line={agreeing}
          rid={registration.id}
          end={period.to}
          digits={digits}
          onClose={() => setAgreeing(null)}
        />
      )}
    </Sheet>
  );
}

/** A figure of one side with what it is; it opens the sheet that tells its rows. */
function SideOf({ to, name, amount }: { to: string; name: string; amount: string }) {
  if (name === "") return null;
  return (
    <>
      <Link className="figure" to={to}>
        {amount}
      </Link>
      <span className="quiet block font-sans text-[12px]">{name}</span>
    </>
  );
}

function StateOf({ line, digits }: { line: AgreementLine; digits: number }) {
  const { state, waiting, rest, agreed, changed } = line;
  const wait = waiting > 0 && <span className="text-warning">{waiting} waiting</span>;
  if (state === null) return wait || <span className="text-success">✓ nothing waits</span>;
  if (!agreed)
    return wait || (rest === 0 ? <span className="text-success">✓ nothing is left</span> : <span>open</span>);
  return (
    <>
      <span className={state === "changed" ? "text-warning" : "text-success"}>
        {state === "changed" ? "▲ changed since" : state === "accepted" ? "✓ accepted as it is" : "✓ agreed"}
      </span>{" "}
      {wait}
      <span className="quiet block text-[12px]">
        {agreed.by}, {showMoment(agreed.at)}
        {agreed.note === "" ? "" : `: ${agreed.note}`}
        {changed.map(({ name, before, now }) => (
          <span key={name} className="block">
            {name}: {displayAmount(before, digits)} then, {displayAmount(now, digits)} now
          </span>
        ))}
      </span>
    </>
  );
}

/** What a line was when its period was sealed, where it is another now, and what was written since. */
function Since({ line: { sealed, left, right, since }, digits }: { line: AgreementLine; digits: number }) {
  const { open } = useTrail();
  const money = (amount: number) => displayAmount(amount, digits);
  const moved = sealed && (sealed.left !== left || sealed.right !== right);
  if (!moved && !since) return null;
  return (
    <span className="quiet block text-[12px]">
      {moved && (
        <span className="block">
          as sealed {money(sealed.left)} against {money(sealed.right)}, {money(sealed.rest)} left
        </span>
      )}
      {since && since.total > 0 && (
        <details>
          <summary className="cursor-pointer">
            {plural(since.total, "entry", "entries")} written since
          </summary>
          {since.rows.map(({ ref, text, date }) => (
            <button key={ref} type="button" className="word-link block text-left" onClick={() => open(ref)}>
              {displayDate(date)} {text}
            </button>
          ))}
          {since.total > since.rows.length && <span>and {since.total - since.rows.length} more</span>}
        </details>
      )}
    </span>
  );
}

/** Keeps that an agreement stands as it does; where something is left, with the reason. */
function AgreeLineDialog({
  line,
  rid,
  end,
  digits,
  onClose,
}: {
  line: AgreementLine;
  rid: number;
  end: string;
  digits: number;
  onClose: () => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { note: "" },
    schema: agreeLineBody,
    body: (typed) => ({ ...typed, id: line.id }),
    send: (body) => api.post(AGREEMENTS, [client?.id, rid, end], body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog of={dialog} title={`Agree ${line.title}`} action="Agree" onClose={onClose}>
      <p className="quiet mb-3">
        {line.rest === 0
          ? "Every difference has its cause. Should a figure change later, this page says so."
          : `${displayAmount(line.rest, digits)} is left without a cause. Say why that is accepted.`}
      </p>
      <TextField name="note" label={line.rest === 0 ? "Note, if any" : "Reason"} />
    </BodyDialog>
  );
}
