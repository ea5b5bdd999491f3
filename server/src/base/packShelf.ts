import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import type { Database } from "../db/database.ts";

/** The shipped jurisdictions and those of the practice, as packs. */
export function packsWith(jurisdictions: readonly OwnJurisdiction[]): Packs {
  return new Packs([...SHIPPED, ...jurisdictions.map(packOf)]);
}

/**
 * The jurisdictions as they stand in the database now. The same object comes back while nothing in them changed, so
 * that what is worked out from a pack is worked out once.
 */
export class PackShelf {
  readonly #db: Database;
  #text = "[]";
  #packs = packsWith([]);

  constructor(db: Database) {
    this.#db = db;
  }

  async packs(): Promise<Packs> {
    const rows = await this.#db.rows<{ definition: string }>(
      "SELECT definition FROM jurisdictions ORDER BY ref",
    );
    const text = `[${rows.map(({ definition }) => definition).join()}]`;
    if (text !== this.#text) {
      this.#packs = packsWith(JSON.parse(text) as OwnJurisdiction[]);
      this.#text = text;
    }
    return this.#packs;
  }
}
