import { amendedPack } from "@fiscalon/core/jurisdictions/amendedPack";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import type { Database } from "../db/database.ts";

/** The shipped jurisdictions and those of the practice, as packs, with what the practice corrected in them. */
export function packsWith(jurisdictions: readonly OwnJurisdiction[], changes: readonly LawChange[]): Packs {
  return new Packs([...SHIPPED, ...jurisdictions.map(packOf)].map((pack) => amendedPack(pack, changes)));
}

/**
 * The jurisdictions as they stand in the database now. The same object comes back while nothing in them changed, so
 * that what is worked out from a pack is worked out once.
 */
export class PackShelf {
  readonly #db: Database;
  #text = "";
  #packs = packsWith([], []);

  constructor(db: Database) {
    this.#db = db;
  }

  async packs(): Promise<Packs> {
    const own = await this.#list("SELECT definition AS item FROM jurisdictions ORDER BY ref");
    const changes = await this.#list("SELECT change AS item FROM law_changes ORDER BY id");
    const text = `${own}\n${changes}`;
    if (text !== this.#text) {
      this.#packs = packsWith(JSON.parse(own) as OwnJurisdiction[], JSON.parse(changes) as LawChange[]);
      this.#text = text;
    }
    return this.#packs;
  }

  /** The JSON texts of a query, as the text of one list. */
  async #list(sql: string): Promise<string> {
    const rows = await this.#db.rows<{ item: string }>(sql);
    return `[${rows.map(({ item }) => item).join()}]`;
  }
}
