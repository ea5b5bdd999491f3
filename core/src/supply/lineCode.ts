import { FiscalError } from "../errors.ts";
import { DOCUMENT_KINDS, rateDateOf } from "../tax/documentInput.ts";
import type { DocumentInput, LineInput } from "../tax/documentInput.ts";
import type { Direction, TaxCode } from "../tax/taxCode.ts";
import { circumstancesOf } from "./circumstances.ts";
import { answeringRule } from "./supplyRule.ts";
import type { SupplyRule } from "./supplyRule.ts";

/** Where codes are found: by name, and by rule for lines that only say their tax class. */
export interface CodeFinder {
  codes: ReadonlyMap<string, TaxCode>;
  rules: readonly SupplyRule[];
  registeredFor?: (levy: string) => boolean;
}

/**
 * The code of a line: the one on it, or the one the supply rules answer for its tax class, with the reason.
 * @param direction side of the line, null on a journal line without a code
 * @throws FiscalError `tax/unknown-code`, `tax/code-wrong-side`, `tax/code-not-active`
 */
export function lineCode(
  document: DocumentInput,
  line: LineInput,
  direction: Direction | null,
  finder: CodeFinder,
): { code: TaxCode | undefined; reason: string | undefined } {
  if (line.code) return { code: usableCode(document, line.code, finder), reason: undefined };
  if (!line.taxClass || direction === null) return { code: undefined, reason: undefined };
  const rule = answeringRule(finder.rules, {
    direction,
    taxClass: line.taxClass,
    supply: line.supply ?? "",
    on: rateDateOf(document),
    circumstances: circumstancesOf(document, line, direction, DOCUMENT_KINDS[document.kind].sign < 0),
    registeredFor: finder.registeredFor,
  });
  if (!rule || !finder.codes.has(rule.code)) return { code: undefined, reason: undefined };
  return { code: usableCode(document, rule.code, finder), reason: rule.words };
}

function usableCode(document: DocumentInput, name: string, { codes }: CodeFinder): TaxCode {
  const code = codes.get(name);
  if (!code) {
    throw new FiscalError(
      "tax/unknown-code",
      `There is no tax code ${name}. Choose one of the list.`,
      "code",
    );
  }
  const { direction } = DOCUMENT_KINDS[document.kind];
  if (direction && code.direction !== "both" && code.direction !== direction) {
    throw new FiscalError(
      "tax/code-wrong-side",
      `${code.code} is for ${code.direction}s; this document is a ${direction}. Choose a ${direction} code.`,
      "code",
    );
  }
  const on = rateDateOf(document);
  if ((code.from !== null && on < code.from) || (code.to !== null && on > code.to)) {
    throw new FiscalError(
      "tax/code-not-active",
      `${code.code} is in use ${activeInWords(code)}; the tax point is ${on}.`,
      "code",
    );
  }
  return code;
}

function activeInWords(code: TaxCode): string {
  const since = code.from === null ? "" : `from ${code.from}`;
  return code.to === null ? since : `${since} to ${code.to}`.trim();
}
