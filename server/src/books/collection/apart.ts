import { roundExact } from "@fiscalon/core/money/roundExact";

/**
 * What of a document `d` with the lines `l` does not count for collection on receipts: services, the tax itself (the
 * parameter holds its code), and all of it where the kind of its goods bears collection by itself.
 */
export const apart = (code: string): string => `CASE
  WHEN max(l.code = ${code} AND l.attributes ->> '$.collected' IS NOT NULL) = 1 THEN d.gross
  ELSE coalesce(sum(CASE WHEN l.code = ${code} OR l.supply = 'services' THEN l.gross END), 0) END`;

/** What of a part of a document is apart, in proportion; minor units, half up. */
export function shareApart(document: { gross: number; apart: number }, part: number): number {
  if (document.gross === 0 || document.apart === 0) return 0;
  return roundExact({ n: BigInt(part) * BigInt(document.apart), d: BigInt(document.gross) });
}
