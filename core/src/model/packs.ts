import { FiscalError } from "../errors.ts";
import type { JurisdictionPack } from "./pack.ts";

/** The jurisdictions a practice works with: those that ship and its own. Handed in, never reached for. */
export class Packs {
  readonly all: readonly JurisdictionPack[];
  readonly #byId: ReadonlyMap<string, JurisdictionPack>;
  readonly #byCountry: ReadonlyMap<string, JurisdictionPack>;
  readonly #levyNames: ReadonlyMap<string, string>;

  /** @param packs of two for one country, or with one id, the first counts */
  constructor(packs: readonly JurisdictionPack[]) {
    this.all = packs;
    const reversed = [...packs].reverse();
    this.#byId = new Map(
      reversed.flatMap((pack) => [...(pack.aliases ?? []), pack.id].map((id) => [id.toLowerCase(), pack])),
    );
    this.#byCountry = new Map(reversed.map((pack) => [pack.country, pack]));
    this.#levyNames = new Map(
      reversed.flatMap(({ levies }) => levies.map(({ levy, short }) => [levy, short ?? levy])),
    );
  }

  has(id: string): boolean {
    return this.#byId.has(id.toLowerCase());
  }

  /** @throws FiscalError `jurisdiction/unknown-pack` */
  byId(id: string): JurisdictionPack {
    const pack = this.#byId.get(id.toLowerCase());
    if (pack) return pack;
    const known = this.all.map((one) => one.id).join(", ");
    throw new FiscalError("jurisdiction/unknown-pack", `There is no pack "${id}". Known: ${known}.`, "pack");
  }

  /** The pack of a country (ISO 3166 alpha-2), or undefined where none is known. */
  ofCountry(country: string): JurisdictionPack | undefined {
    return this.#byCountry.get(country);
  }

  /** What a levy is called on papers and in tables; one that no jurisdiction knows by its own id. */
  levyName(levy: string): string {
    return this.#levyNames.get(levy) ?? levy;
  }

  /** The names of several levies in one text. */
  levyNames(levies: readonly string[]): string {
    return levies.map((levy) => this.levyName(levy)).join(", ");
  }

  /** What a schedule of rates is called; one that no jurisdiction names by its own id. */
  rateName(id: string): string {
    for (const { rateNames } of this.all) {
      const name = rateNames[id];
      if (name !== undefined) return name;
    }
    return id;
  }
}
