import { join } from "node:path";

/** The file of a practice, in its data folder. */
export const PRACTICE_FILE = "practice.sqlite";
/** The file of a client's books, in the client's folder. */
export const BOOKS_FILE = "books.sqlite";
/** The folder of all clients' folders. */
export const CLIENTS = "clients";

/** Where a client's books and papers are, within the data folder. */
export function folderOfClient(client: number): string {
  return join(CLIENTS, String(client));
}
