import { displayAmount } from "@fiscalon/core/money/amount";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { shownNo } from "../../books/stock/pieces.ts";
import { requireRule } from "../../books/stock/requireRule.ts";
import { pieceView } from "../../features/stock/pieceView.ts";
import type { TrailScope } from "./trailScope.ts";

/** The tax of a piece: what it was sold and bought for, and the tax inside the difference. `no` */
export async function pieceStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const piece = await pieceView(work, setup, Number(parts[0]));
  const { rule } = requireRule(work, setup);
  const { digits } = setup.plain;
  const show = (amount: number) => displayAmount(amount, digits);
  const { sale, bought, price, sold, margin, tax, rate } = piece;
  const sides: TrailPart[] = [
    ...(sale && sold !== null
      ? [{ ref: `line/${sale.document}/${sale.line}`, label: "Sold for", detail: sale.number, amount: sold }]
      : []),
    {
      ref: bought ? `line/${bought.document}/${bought.line}` : null,
      label: "Bought for",
      detail: piece.purchaseNumber,
      amount: price === null ? null : -price,
    },
    ...piece.parts.map((part) => ({
      ref: `piece/${part.no}`,
      label: `Part ${shownNo(part.no)}`,
      detail: part.name,
      amount: null,
    })),
  ];
  return {
    ref,
    title: `Piece ${shownNo(piece.no)}, ${piece.name}: tax`,
    amount: tax ?? 0,
    digits,
    words: [
      margin === null && sale ? "Sold with an ordinary code: tax on the whole price." : rule.says,
      ...(piece.offReason === null ? [] : [`Off the scheme: ${piece.offReason}.`]),
      `(${rule.source})`,
    ],
    parts: sides,
    arithmetic:
      margin === null || price === null || sold === null
        ? []
        : margin <= 0
          ? [`${show(sold)} − ${show(price)} = ${show(margin)}: no tax`]
          : [
              `${show(sold)} − ${show(price)} = ${show(margin)}`,
              `${show(margin)} × ${rate} / ${100 + Number(rate)} = ${show(tax ?? 0)}`,
            ],
    open: { label: `Piece ${shownNo(piece.no)}`, path: `books/stock/${piece.no}` },
  };
}
