import { apartBy, causeOf, causeOnReturn } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgePage, BridgeView } from "@fiscalon/contract/bridge";
import type { Work } from "../../../base/work.ts";
import { apartRows } from "../../../books/agree/turnover/apartRows.ts";
import type { ApartRow } from "../../../books/agree/turnover/apartRows.ts";
import type { Bridge } from "../../../books/agree/turnover/bridge.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { agreedSpan } from "./agreeSpan.ts";
import { codeRows } from "./codeRows.ts";

/** A bridge as the screen shows it, with what people said of it. */
export async function bridgeView(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  { of, span, agreement, accounts, declared, form }: Bridge,
): Promise<BridgeView> {
  const { left, right, causes, open, rest } = agreement;
  const named = await work.rows<{ cause: string }>(
    "SELECT DISTINCT cause FROM named_causes WHERE client_id = $1 AND kind = $2 ORDER BY cause",
    [setup.client.id, of],
  );
  return {
    ...span,
    digits: setup.plain.digits,
    form: form.name,
    of,
    boxes: [...(form[of] ?? [])],
    left,
    right,
    accounts,
    declared,
    causes: causes.map((cause) => ({ ...cause })),
    open,
    rest,
    ...(await agreedSpan(work, r, span, of, agreement)),
    named: named.map(({ cause }) => cause),
  };
}

/** The rows of a cause, or those that wait to be named where none is told. */
export async function bridgePage(
  work: Work,
  r: RegistrationRecord,
  { of, span, apart, codes, form }: Bridge,
  { cause, ...page }: { cause: string; offset: number; limit: number },
): Promise<BridgePage> {
  const groups = apart.filter((group) => (causeOf(group, of)?.id ?? "") === cause);
  if (groups.length > 0) {
    const wanted = { traits: groups.map(({ traits }) => traits) };
    return pageOf(await apartRows(work, r, span, wanted, page, of));
  }
  const own = codes.filter((code) => causeOnReturn(code, of)?.id === cause && apartBy(code) !== 0);
  if (own.length === 0) return { total: 0, rows: [] };
  return pageOf(await codeRows(work, r, span, own, form, of, page));
}

function pageOf(rows: readonly ApartRow[]): BridgePage {
  return {
    total: rows[0]?.total ?? 0,
    rows: rows.map(({ total: _total, line, ...row }) => ({
      ...row,
      amount: row.base - row.ledger,
      ref:
        row.document === null
          ? null
          : line === null
            ? `document/${row.document}`
            : `line/${row.document}/${line}`,
    })),
  };
}
