import { useScope } from "../../app/scope.ts";
import { withQuery } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { LedgerNav } from "../../app/LedgerNav.tsx";
import { useLedgerDates } from "../../app/useLedgerDates.ts";

/** Everything these books hold, to be taken elsewhere. */
export function ExportPage() {
  const { client } = useScope();
  const dates = useLedgerDates();
  const base = `/api/clients/${client?.id}`;
  const range = { from: dates.from, to: dates.to };
  const files = [
    {
      name: "Book file",
      address: `${base}/book`,
      dated: false,
      words:
        "The complete set-up and books as JSON: places, registrations, codes, contacts, documents with their papers, payments, bank lines, terminals, returns. Loaded again it gives the same client.",
    },
    {
      name: "Book file, no papers",
      address: withQuery(`${base}/book`, { papers: "false" }),
      dated: false,
      words: "The same without papers and imported files: smaller, and readable in an editor.",
    },
    {
      name: "Audit file (SAF-T)",
      address: withQuery(`${base}/export/audit-file`, range),
      dated: true,
      words:
        "Chart with balances, customers, suppliers, tax table, ledger, sales and purchase invoices as XML of the OECD standard, for auditors and authorities.",
    },
    {
      name: "Set of CSV files",
      address: withQuery(`${base}/export/csv`, range),
      dated: true,
      words:
        "Accounts, contacts, items, documents, lines, payments, postings and tax facts, one file each, in one archive. Texts cannot act as formulas.",
    },
  ];
  return (
    <Sheet title="Export" actions={<BooksNav />}>
      <LedgerNav />
      <div className="mb-4 flex items-end gap-4">
        <DateField label="From" value={dates.from} onChange={dates.setFrom} />
        <DateField label="To" value={dates.to} onChange={dates.setTo} />
      </div>
      <dl>
        {files.map(({ name, address, dated, words }) => (
          <div key={name} className="flex items-center gap-6 border-b border-base-300 py-3">
            <dt className="w-[170px] font-semibold">{name}</dt>
            <dd className="quiet flex-1">
              {words} {dated ? "Between the two days." : "All days."}
            </dd>
            <dd>
              <a className="action" href={address} download>
                Save
              </a>
            </dd>
          </div>
        ))}
      </dl>
      <p className="quiet mt-4">
        Sales documents are saved one by one as PDF or e-invoice from the document itself; tax reports as CSV,
        workbook or PDF under Tax reports.
      </p>
    </Sheet>
  );
}
