import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { useScope } from "../../../app/scope.ts";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";
import { FileButton } from "../../../kit/FileButton.tsx";
import { showMoment } from "../../../kit/format.ts";
import { EmptyState, Sheet } from "../../../kit/Sheet.tsx";
import { AgreeLinks } from "../AgreeLinks.tsx";

const SHEETS = "/clients/:id/register-sheets";

/** Registers that other systems exported, to be compared as they are. */
export function RegistersPage() {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: sheets, error } = useQuery({
    queryKey: keys.of(client?.id, "registers", "all"),
    queryFn: ({ signal }) => api.get(SHEETS, [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  const receive = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return api.post(SHEETS, [client?.id], form);
    },
    onSuccess: async ({ id }) => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      await navigate(path(`agree/register/${id}`));
    },
  });
  return (
    <Sheet
      title="A register alone"
      lead="What another system exported, as it is: the value in the accounts against the value on the return, without document numbers and without posting anything."
      actions={<AgreeLinks />}
    >
      <div className="mb-3">
        <FileButton
          label="Register file"
          accept=".csv,.tsv,.txt,.xlsx"
          busy={receive.isPending || client === undefined}
          doing="Reading …"
          onFile={(file) => receive.mutate(file)}
        >
          Choose an exported register
        </FileButton>
      </div>
      <ErrorNote error={error ?? receive.error} />
      {sheets?.length === 0 && (
        <EmptyState title="No register yet">
          Any list of sales or purchases with headings will do: CSV, TSV or a workbook.
        </EmptyState>
      )}
      {sheets && sheets.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Register</th>
              <th>Brought in</th>
              <th className="num">Rows</th>
            </tr>
          </thead>
          <tbody>
            {sheets.map(({ id, name, createdAt, rows }) => (
              <tr key={id}>
                <td>
                  <Link className="word-link" to={path(`agree/register/${id}`)}>
                    {name}
                  </Link>
                </td>
                <td>{showMoment(createdAt)}</td>
                <td className="num">{rows}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Sheet>
  );
}
