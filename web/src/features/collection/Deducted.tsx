import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import type { DeductedRow, DeductedRows } from "@fiscalon/contract/collection";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { plural } from "../../kit/format.ts";
import type { Column } from "../../kit/useGridTable.ts";

/** What operators and customers deducted from what they paid us in a fiscal year, until it is in the authority's ledger. */
export function Deducted({ year }: { year: string }) {
  const { client, minorDigits: digits } = useScope();
  const [search, setSearch] = useState("");
  const filter = { from: addMonths(addDays(year, 1), -12), to: year, search };
  const key = keys.of(client?.id, "collection", "deducted", filter);
  const fetchPage = (order: object) =>
    api.get("/clients/:id/collection/deducted", [client?.id], { ...filter, ...order });
  const { data, error } = useQuery({
    queryKey: [...key, "head"],
    queryFn: () => fetchPage({ limit: 1 }),
    enabled: client !== undefined,
    placeholderData: (previous) => previous,
  });
  const columns = useMemo(() => columnsOf(digits), [digits]);
  if (!data) return <ErrorNote error={error} />;
  if (data.account === null) {
    return (
      <p className="quiet">
        No account has the role “tax deducted from us”. Give it to one in Set up, Accounts; a receipt that
        came in short books what was deducted there as its difference.
      </p>
    );
  }
  return (
    <>
      <div className="mb-2 flex items-end gap-4">
        <FindInput
          label="Find what was deducted"
          placeholder="Number, party or text"
          value={search}
          onChange={setSearch}
        />
        <span className="ml-auto">
          Not yet in the authority&rsquo;s ledger:{" "}
          <Figure
            amount={data.balance}
            digits={digits}
            of={`account/${data.account}`}
            label="Deducted and open"
          />
        </span>
      </div>
      <DataTable<DeductedRow, DeductedRows>
        name="deducted"
        label="Deducted from us"
        columns={columns}
        rowId={({ id }) => id}
        queryKey={key}
        enabled={client !== undefined}
        fetchPage={fetchPage}
        foot={({ total, deducted }) => [
          {
            caption: plural(total, "entry", "entries"),
            figures: {
              amount: (
                <Figure
                  amount={deducted}
                  digits={digits}
                  of={`account/${data.account}/${filter.from}/${filter.to}`}
                  label="Deducted"
                />
              ),
            },
          },
        ]}
        empty={`Nothing in this year. A receipt that came in short books what was deducted as its difference, to account ${data.account}.`}
      />
    </>
  );
}

function columnsOf(digits: number): Column<DeductedRow>[] {
  return [
    { id: "date", head: "Date", width: DATE_WIDTH, sorts: true, cell: ({ date }) => displayDate(date) },
    { id: "number", head: "Entry", width: 120, sorts: true, always: true, cell: ({ number }) => number },
    { id: "party", head: "By", width: 160, grow: 1, sorts: true, cell: ({ party }) => party },
    { id: "text", head: "What for", width: 180, grow: 1.2, cell: ({ text }) => text },
    {
      id: "amount",
      head: "Deducted",
      width: 120,
      amount: true,
      sorts: true,
      cell: ({ amount, number, ref }) => (
        <Figure amount={amount} digits={digits} of={ref} label={`Deducted, ${number},`} />
      ),
    },
  ];
}
