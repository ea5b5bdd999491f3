/** What the server cannot do for reasons of its own: its folder, its disk, the books of one client, its copies. */
export const ERRORS_OF_SERVER = {
  "client/damaged": {
    status: 500,
    says: "The books in … are damaged: …. Nothing was changed. Bring a copy back with npm run restore.",
  },
  "client/folder-missing": {
    status: 500,
    says: "The books of this client are not in …. Bring the folder back, or restore a copy of it.",
  },
  "client/no-currency": { status: 422, says: "No pack ships for …. Say the currency." },
  "copies/running": {
    status: 409,
    says: "A copy is being worked on. Wait for its end, or break it off.",
  },
  "copies/unknown": { status: 404, says: "There is no copy … in …." },
  "server/books-busy": {
    status: 503,
    says: "Long work has these books just now; nothing was changed. Do it again in a while.",
  },
  "server/disk-failed": {
    status: 500,
    says: "The disk of the server could not be read or written; nothing was changed. Look at the disk before anything else, and have a copy at hand.",
  },
  "server/disk-full": {
    status: 507,
    says: "The disk of the server is full; nothing was changed. Make room, and do it again.",
  },
  "server/failed": {
    status: 500,
    says: "Something failed on the server; nothing was changed. Try again, and look at the log if it stays.",
  },
  "server/no-rights": {
    status: 500,
    says: "The server may not write into its folder; nothing was changed. Give it the right to, and do it again.",
  },
  "server/unreachable": { status: 503, says: "The server does not answer." },
} as const satisfies Record<string, { status: number; says: string }>;
