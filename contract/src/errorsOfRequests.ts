/** What can be refused of requests themselves, whatever they ask. */
export const ERRORS_OF_REQUESTS = {
  "request/foreign": {
    status: 403,
    says: "This request comes from another site, or to a name this server does not have. Set FISCALON_HOSTS to the names it is reached by.",
  },
  "request/given-up": { status: 503, says: "Whoever asked is gone, so this was stopped." },
  "request/took-too-long": {
    status: 503,
    says: "This took longer than … seconds and was stopped. Ask for a shorter span, or export it.",
  },
  "request/invalid": {
    status: 400,
    says: "The body, query or path does not fit its schema; the field says where.",
  },
  "request/key-reused": {
    status: 422,
    says: "Another request had this key. Give each request one of its own.",
  },
  "request/media-type": {
    status: 415,
    says: "This is sent in a form that is not taken here. Send JSON as application/json, a file as multipart/form-data.",
  },
  "request/not-found": { status: 404, says: "… does not exist, or no longer." },
  "request/not-json": {
    status: 400,
    says: "The body is no JSON. Send it as JSON in UTF-8, with nothing before or after it.",
  },
  "request/overtaken": {
    status: 409,
    says: "… changed this on … at … UTC, after you opened it. Look at both versions, and choose.",
  },
  "request/repeated": {
    status: 409,
    says: "This was done already. Look at the list before you do it again.",
  },
  "request/too-large": {
    status: 413,
    says: "The file is too large. Split it, or leave out what is not needed.",
  },
  "request/too-many": { status: 429, says: "Too many requests at once. Wait a moment, then go on." },
  "request/unreadable": {
    status: 400,
    says: "The request could not be read. Check its address and what is sent with it.",
  },
  "rules/changed": {
    status: 409,
    says: "Somebody changed the rules since you opened them. Look at both, and choose.",
  },
} as const satisfies Record<string, { status: number; says: string }>;
