import { useMemo } from "react";
import type { DetailPage, DetailRow } from "@fiscalon/contract/reports";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { plural } from "../../kit/format.ts";
import { detailColumns } from "./detailColumns.tsx";
import type { Filter } from "./useTaxSummary.ts";

/** The lines that were counted, in order of time; each opens its trail. */
export function DetailReport({ clientId, filter }: { clientId: number; filter: Filter }) {
  const { path, minorDigits } = useScope();
  const packs = usePacks();
  const columns = useMemo(
    () =>
      detailColumns(
        minorDigits,
        (levy) => packs.levyName(levy),
        (document) => path(`books/documents/${document}`),
      ),
    [minorDigits, packs, path],
  );
  return (
    <DataTable<DetailRow, DetailPage>
      name="tax-details"
      label="Lines counted"
      columns={columns}
      rowId={({ id }) => id}
      queryKey={keys.of(clientId, "tax-details", filter)}
      enabled
      fetchPage={({ offset, limit }) =>
        api.get("/clients/:id/reports/tax/details", [clientId], { ...filter, offset, limit })
      }
      foot={({ total }) => [{ caption: plural(total, "line"), figures: {} }]}
      empty="Nothing was counted in these days."
    />
  );
}
