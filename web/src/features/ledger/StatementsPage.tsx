import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { LedgerAccountRow } from "@fiscalon/contract/ledger";
import type { TrailStep } from "@fiscalon/contract/trail";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { LedgerNav } from "../../app/LedgerNav.tsx";
import { useLedgerDates } from "../../app/useLedgerDates.ts";

type Amount = (row: LedgerAccountRow) => number;

/** Profit and loss between two days, and the balance sheet of the last one, in brief. */
export function StatementsPage() {
  const { client, minorDigits: digits } = useScope();
  const dates = useLedgerDates();
  const { data: rows = [], error } = useQuery({
    queryKey: keys.of(client?.id, "trial-balance", dates.from, dates.to),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/trial-balance", [client?.id], { from: dates.from, to: dates.to }, signal),
    enabled: client !== undefined,
  });
  const of = (...types: string[]) => rows.filter(({ type }) => types.includes(type));
  const sum = (list: readonly LedgerAccountRow[], amount: Amount) =>
    list.reduce((total, row) => total + amount(row), 0) || 0;
  const earned: Amount = (row) => row.credit - row.debit;
  const owned: Amount = (row) => row.closing;
  const owed: Amount = (row) => -row.closing || 0;
  const profit = sum(of("income", "expense"), earned);
  const allProfit = sum(of("income", "expense"), owed);
  const movement = { from: dates.from, to: dates.to };
  const standing = { from: "1900-01-01", to: dates.to };
  const step = (title: string, amount: number, words: string, parts: TrailStep["parts"]): TrailStep => ({
    ref: `statement/${title}/${dates.from}/${dates.to}/${amount}`,
    title,
    amount,
    digits,
    words: [words],
    parts,
    arithmetic: [],
  });
  const result = step("Result", profit, "Income less expenses between the two days.", [
    { ref: null, label: "Income", detail: "", amount: sum(of("income"), earned) },
    { ref: null, label: "Expenses", detail: "", amount: sum(of("expense"), earned) },
  ]);
  const allResults = step(
    "Results so far",
    allProfit,
    "Income less expenses of all years up to the last day.",
    [
      { ref: null, label: "Income", detail: "", amount: sum(of("income"), owed) },
      { ref: null, label: "Expenses", detail: "", amount: sum(of("expense"), owed) },
    ],
  );
  return (
    <Sheet
      title="Statements"
      aside={`${displayDate(dates.from)} to ${displayDate(dates.to)}`}
      actions={<BooksNav />}
    >
      <LedgerNav />
      <div className="mb-3 flex items-end gap-4">
        <DateField label="From" value={dates.from} onChange={dates.setFrom} />
        <DateField label="To" value={dates.to} onChange={dates.setTo} />
      </div>
      <ErrorNote error={error} />
      <div className="grid grid-cols-2 items-start gap-10">
        <table className="sheet-table">
          <tbody>
            <Group name="Income" rows={of("income")} amount={earned} dates={movement} />
            <Group
              name="Expenses"
              rows={of("expense")}
              amount={(row) => -earned(row) || 0}
              dates={movement}
            />
            <tr className="total">
              <td>{profit < 0 ? "Loss" : "Profit"} of these days</td>
              <td className="num">
                <Figure amount={profit} digits={digits} of={result} label="Result" />
              </td>
            </tr>
          </tbody>
        </table>
        <table className="sheet-table">
          <tbody>
            <Group name="Assets" rows={of("asset")} amount={owned} dates={standing} />
            <Group name="Liabilities" rows={of("liability")} amount={owed} dates={standing} />
            <Group name="Equity" rows={of("equity")} amount={owed} dates={standing} />
            <tr>
              <td>Results so far</td>
              <td className="num">
                <Figure amount={allProfit} digits={digits} of={allResults} label="Results so far" dash />
              </td>
            </tr>
            <tr className="total">
              <td>
                {sum(rows, owned) === 0
                  ? "Assets equal liabilities, equity and results"
                  : "Out of balance: the entries do not sum to zero"}
              </td>
              <td className="num">
                <Figure
                  amount={sum(of("asset"), owned)}
                  digits={digits}
                  label="Total of assets"
                  of={step("Total of assets", sum(of("asset"), owned), "The balances of all assets.", [])}
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </Sheet>
  );
}

function Group({
  name,
  rows,
  amount,
  dates,
}: {
  name: string;
  rows: readonly LedgerAccountRow[];
  amount: Amount;
  dates: { from: string; to: string };
}) {
  const { path, minorDigits: digits } = useScope();
  const shown = rows.filter((row) => amount(row) !== 0);
  const total = shown.reduce((sum, row) => sum + amount(row), 0);
  return (
    <>
      <tr>
        <th scope="rowgroup">{name}</th>
        <th className="num">{shown.length === 0 ? "–" : ""}</th>
      </tr>
      {shown.map((row) => (
        <tr key={row.code}>
          <td>
            <span className="mr-2 font-mono text-[12.5px]">{row.code}</span>
            <Link className="hover:text-primary" to={path(`books/ledger/${row.code}`)}>
              {row.name}
            </Link>
          </td>
          <td className="num">
            <Figure
              amount={amount(row)}
              digits={digits}
              of={`account/${row.code}/${dates.from}/${dates.to}`}
              label={row.name}
            />
          </td>
        </tr>
      ))}
      {shown.length > 1 && (
        <tr className="font-semibold">
          <td>{name} together</td>
          <td className="num">
            <Figure
              amount={total}
              digits={digits}
              label={`${name} together`}
              of={{
                ref: `statement/${name}/${dates.to}/${total}`,
                title: name,
                amount: total,
                digits,
                words: [`The ${name.toLowerCase()} above.`],
                parts: shown.map((row) => ({
                  ref: `account/${row.code}/${dates.from}/${dates.to}`,
                  label: `${row.code} ${row.name}`,
                  detail: "",
                  amount: amount(row),
                })),
                arithmetic: [],
              }}
            />
          </td>
        </tr>
      )}
    </>
  );
}
