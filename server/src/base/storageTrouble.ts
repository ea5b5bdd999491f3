import type { ErrorCode } from "@fiscalon/contract/errors";

/** What the disk says, by the codes of the database and of the system. */
const TROUBLE: readonly (readonly [RegExp, ErrorCode])[] = [
  [/^(SQLITE_FULL|ENOSPC|EDQUOT)$/, "server/disk-full"],
  [/^(SQLITE_READONLY|SQLITE_PERM|SQLITE_CANTOPEN|EROFS|EACCES|EPERM)$/, "server/no-rights"],
  [/^(SQLITE_IOERR|EIO)$/, "server/disk-failed"],
  [/^SQLITE_BUSY$/, "server/books-busy"],
];

/** Whether something failed because of the disk, and as what it is told; null where it is none of that. */
export function storageTrouble(error: unknown): ErrorCode | null {
  if (!(error instanceof Error)) return null;
  const { code, parent } = error as { code?: unknown; parent?: { code?: unknown } };
  const codes = [code, parent?.code].filter((one) => typeof one === "string");
  return TROUBLE.find(([pattern]) => codes.some((one) => pattern.test(one)))?.[1] ?? null;
}
