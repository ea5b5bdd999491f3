import { ERRORS } from "./errors.ts";

/** The catalogue of errors as a table of docs/errors.md, Markdown. */
export function errorTable(): string {
  const rows = Object.entries(ERRORS)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([code, { status, says }]) => {
      return `| \`${code}\` | ${status} | ${says.replaceAll("|", "\\|")} |`;
    });
  return ["| code | status | what it says |", "| --- | --- | --- |", ...rows, ""].join("\n");
}
