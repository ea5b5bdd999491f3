import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { useCollects } from "../../app/useKept.ts";
import { SelectField } from "../../kit/Field.tsx";
import { BLANK_LINE, isBlank } from "./draft.ts";
import type { Draft } from "./draft.ts";
import type { LiveEffect } from "./useEffectOf.ts";

/** What a sale collects from the customer beside its price, with the line that charges it one press away. */
export function CollectionLine({
  draft,
  live,
  document,
  onChange,
}: {
  draft: Draft;
  live: LiveEffect;
  document: number | null;
  onChange: (change: Partial<Draft>) => void;
}) {
  const { client, minorDigits: digits } = useScope();
  const packs = usePacks();
  const collects = useCollects();
  const [kind, setKind] = useState("");
  const rule = client?.registrations
    .map(({ pack }) => packs.byId(pack).collection)
    .find((one) => one !== undefined);
  const lines = draft.lines.filter((line) => !isBlank(line));
  const charged = lines.some(({ code }) => code === rule?.code);
  const gross = live.effect?.printed.gross ?? 0;
  const { direction, sign } = DOCUMENT_KINDS[draft.kind];
  const asked =
    collects &&
    direction === "sale" &&
    sign > 0 &&
    draft.contact !== null &&
    gross > 0 &&
    !charged &&
    draft.currency === "";
  const body = {
    contact: draft.contact?.id ?? 0,
    date: draft.date,
    amount: formatAmount(gross, digits),
    ...(kind === "" ? {} : { kind }),
    ...(document === null ? {} : { document }),
  };
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "collection", "proposal", body),
    queryFn: ({ signal }) => api.ask("/clients/:id/collection/proposal", [client?.id], body, signal),
    enabled: asked,
    placeholderData: (before) => before,
    retry: false,
  });
  if (!asked || !rule || !data) return null;
  const { proposal } = data;
  return (
    <div
      role="group"
      aria-label="Collected at source"
      className="mt-4 flex flex-wrap items-end gap-3 text-[13px]"
    >
      <SelectField
        className="w-[230px]"
        label="Goods whose sale bears collection"
        value={kind}
        onChange={({ target }) => setKind(target.value)}
      >
        <option value="">none of these</option>
        {rule.kinds.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      {proposal && (
        <p className="note-row">
          ◆ {displayAmount(proposal.tax, digits)} is collected with this sale: {proposal.arithmetic}.{" "}
          <button
            type="button"
            className="word-link"
            onClick={() =>
              onChange({
                lines: [
                  ...lines,
                  {
                    ...BLANK_LINE,
                    text: proposal.text,
                    code: proposal.code,
                    codeTyped: true,
                    account: proposal.account,
                    amount: formatAmount(proposal.tax, digits),
                    attributes: kind === "" ? {} : { collected: kind },
                  },
                ],
              })
            }
          >
            Add the line
          </button>
        </p>
      )}
    </div>
  );
}
