import { keys } from "../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useNavigate } from "react-router";
import { useDebounce } from "use-debounce";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../api/client.ts";
import { KIND_NAMES, TYPED_KINDS } from "../kit/kinds.ts";
import { PAUSE_MS } from "../kit/typing.ts";
import { FIELD, FIND } from "./findField.ts";
import { useScope } from "./scope.ts";
import { SCREENS } from "./screens.ts";
import type { Screen } from "./screens.ts";

const FOUND = (SCREENS as readonly Screen[]).flatMap(({ of, path, find }) =>
  find ? [{ of, path, find }] : [],
);

/** What fits what is typed: clients, documents, codes, screens and actions. */
export function FindList({
  search,
  onSearch,
  onClose,
}: {
  search: string;
  onSearch: (search: string) => void;
  onClose: () => void;
}) {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const { data: clients = [] } = useQuery({
    queryKey: keys.clients,
    queryFn: ({ signal }) => api.get("/clients", [], {}, signal),
  });
  const [asked] = useDebounce(search, PAUSE_MS);
  const { data: documents } = useQuery({
    queryKey: keys.of(client?.id, "find", asked),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/documents", [client?.id], { search: asked, limit: 8, part: "rows" }, signal),
    enabled: client !== undefined && asked.length > 1,
  });
  const { data: setup } = useQuery({
    queryKey: keys.of(client?.id, "setup"),
    queryFn: ({ signal }) => api.get("/clients/:id/setup", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  const go = (to: string) => {
    onClose();
    void navigate(to);
  };
  return (
    <Command label="Find anything" loop>
      <Command.Input value={search} onValueChange={onSearch} autoFocus placeholder={FIND} className={FIELD} />
      <Command.List className="max-h-[50vh] overflow-y-auto">
        <Command.Empty className="quiet py-3">Nothing fits. Try fewer letters.</Command.Empty>
        {client && (
          <Command.Group heading="Actions">
            {TYPED_KINDS.map((kind) => (
              <Row
                key={kind}
                value={`new ${KIND_NAMES[kind]}`}
                onSelect={() => go(path(`books/documents/new/${kind}`))}
              >
                New {KIND_NAMES[kind].toLowerCase()}
              </Row>
            ))}
          </Command.Group>
        )}
        {client && (
          <Command.Group heading="Screens">
            {FOUND.filter(({ of }) => of === "client").map(({ path: to, find }) => (
              <Row key={to} value={`screen ${find}`} onSelect={() => go(path(to))}>
                {find}
              </Row>
            ))}
          </Command.Group>
        )}
        <Command.Group heading="Clients">
          {clients.map((one) => (
            <Row
              key={one.id}
              value={`client ${one.name}`}
              onSelect={() => go(`/c/${one.id}/books/documents`)}
            >
              {one.name}
            </Row>
          ))}
          {FOUND.filter(({ of }) => of === "practice").map(({ path: to, find }) => (
            <Row key={to} value={`practice ${find}`} onSelect={() => go(`/${to}`)}>
              {find}
            </Row>
          ))}
        </Command.Group>
        {documents && documents.rows.length > 0 && (
          <Command.Group heading="Documents">
            {documents.rows.map((row) => (
              <Row
                key={row.id}
                value={`${row.number} ${row.party} ${search}`}
                onSelect={() => go(path(`books/documents/${row.id}`))}
              >
                {KIND_NAMES[row.kind]} {row.number} · {row.party} ·{" "}
                {displayAmount(row.gross, client?.digits ?? 2)}
              </Row>
            ))}
          </Command.Group>
        )}
        {setup && (
          <Command.Group heading="Codes">
            {setup.codes.map((code) => (
              <Row
                key={code.code}
                value={`code ${code.code} ${code.name}`}
                onSelect={() => go(`${path("setup/codes")}#${code.code}`)}
              >
                {code.code} · {code.name}
              </Row>
            ))}
          </Command.Group>
        )}
      </Command.List>
    </Command>
  );
}

function Row({
  value,
  onSelect,
  children,
}: {
  value: string;
  onSelect: () => void;
  children: React.ReactNode;
}) {
  return (
    <Command.Item
      value={value}
      onSelect={onSelect}
      className="cursor-pointer rounded px-2 py-1.5 data-[selected=true]:bg-accent"
    >
      {children}
    </Command.Item>
  );
}
