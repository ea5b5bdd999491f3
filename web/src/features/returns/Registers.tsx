import { useQuery } from "@tanstack/react-query";
import type { RegisterView } from "@fiscalon/contract/registers";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { RETURN } from "./useReturn.ts";
import type { useReturn } from "./useReturn.ts";

/** The lists that go with the return of this jurisdiction, beside its boxes. */
export function Registers({ parts }: Pick<ReturnType<typeof useReturn>, "parts">) {
  const packs = usePacks();
  const { client, registration } = useScope();
  const hasLists = registration !== undefined && packs.byId(registration.pack).registers !== undefined;
  const { data: registers } = useQuery({
    queryKey: keys.of(client?.id, "return", "registers", ...parts),
    queryFn: ({ signal }) => api.get(`${RETURN}/registers`, parts, {}, signal),
    enabled: hasLists,
  });
  if (!hasLists || !registers || registers.length === 0) return null;
  return (
    <section aria-label="Lists of this return" className="mt-8">
      <h2 className="mb-1">Lists that go with it</h2>
      {registers.map((register) => (
        <Register
          key={register.id}
          register={register}
          file={`/api${filled(`${RETURN}/registers`, parts)}/${register.id}`}
        />
      ))}
    </section>
  );
}

/** How many cells of a row say what it is. */
const NAMED = 2;

function RowAmount({
  amount,
  digits,
  opens,
  label,
}: {
  amount: number;
  digits: number;
  opens: string | null;
  label: string;
}) {
  if (opens === null) return displayAmount(amount, digits);
  return <Figure amount={amount} digits={digits} of={opens} label={label} />;
}

function Register({ register, file }: { register: RegisterView; file: string }) {
  const { name, source, format, columns, rows, opens, total, digits, missing } = register;
  return (
    <details className="border-b border-base-300 py-1.5">
      <summary className="cursor-pointer">
        <span className="font-semibold">{name}</span>{" "}
        <span className="quiet">
          {plural(total, "row")}
          {missing && <span className="ml-2 text-warning">{missing}</span>}
        </span>
      </summary>
      <p className="quiet my-1 flex gap-4 text-[12.5px]">
        {source}
        <a className="word-link" href={file} download>
          {format === "csv" ? "As CSV" : "As a file for the portal (JSON)"}
        </a>
      </p>
      <div className="overflow-x-auto">
        <table className="sheet-table">
          <thead>
            <tr>
              {columns.map((column) => (
                <th key={column.name} className={column.amount ? "num" : ""}>
                  {column.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((cells, row) => (
              <tr key={row}>
                {cells.map((cell, index) => (
                  <td key={index} className={typeof cell === "number" ? "num" : ""}>
                    {columns[index]?.amount && typeof cell === "number" ? (
                      <RowAmount
                        amount={cell}
                        digits={digits}
                        opens={opens[row] ?? null}
                        label={`${columns[index].name}, ${cells.slice(0, NAMED).join(" ")}`}
                      />
                    ) : (
                      cell
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {total > rows.length && (
        <p className="quiet mt-1">{total - rows.length} more rows stand in the file.</p>
      )}
    </details>
  );
}
