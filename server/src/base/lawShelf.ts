import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { Database } from "../db/database.ts";
import { lawOf } from "./law.ts";
import type { Law } from "./law.ts";

/**
 * The law as it stands in the practice now. The same object comes back while nothing in it changed, so that what is
 * worked out from a pack is worked out once.
 */
export class LawShelf {
  readonly #practice: Database;
  #text = "";
  #law = lawOf([], []);

  constructor(practice: Database) {
    this.#practice = practice;
  }

  async law(): Promise<Law> {
    const own = await this.#list("SELECT definition AS item FROM jurisdictions ORDER BY ref");
    const changes = await this.#list("SELECT change AS item FROM law_changes ORDER BY id");
    const text = `${own}\n${changes}`;
    if (text !== this.#text) {
      this.#law = lawOf(JSON.parse(own) as OwnJurisdiction[], JSON.parse(changes) as LawChange[]);
      this.#text = text;
    }
    return this.#law;
  }

  /** The JSON texts of a query, as the text of one list. */
  async #list(sql: string): Promise<string> {
    const rows = await this.#practice.rows<{ item: string }>(sql);
    return `[${rows.map(({ item }) => item).join()}]`;
  }
}
