import { bareNumber } from "@fiscalon/core/incoming/bareNumber";
import type { TradedWith } from "@fiscalon/core/incoming/registerReading";
import type { Party } from "@fiscalon/core/model/party";
import { isRegionOf, regionOf } from "@fiscalon/core/supply/regions";
import type { Work, Writing } from "../../base/work.ts";
import { contactParties } from "../../books/documents/addSurroundings.ts";

/** A party of a file: the contact it is, where there is one already, and what is known of it then. */
export interface FoundParty {
  contact: number | null;
  party: Party;
}

/** Who the parties of a file are: by name, otherwise by tax number. */
export class Parties {
  readonly #work: Work;
  readonly #contacts: Map<number, Party>;
  readonly #byName = new Map<string, number>();
  readonly #byNumber = new Map<string, number>();

  private constructor(work: Work, contacts: Map<number, Party>) {
    this.#work = work;
    this.#contacts = contacts;
    for (const [id, { name, taxNumber }] of contacts) {
      if (name) this.#byName.set(name.toLowerCase(), id);
      if (taxNumber) this.#byNumber.set(numberKey(taxNumber), id);
    }
  }

  static async of(work: Work, clientId: number): Promise<Parties> {
    return new Parties(work, await contactParties(work, "client_id = $1", [clientId]));
  }

  /** What the books know of it counts; what they do not know the file tells. Undefined where the file names nobody. */
  find(traded: TradedWith): FoundParty | undefined {
    if (traded.party === "") return undefined;
    const number = numberKey(traded.partyNumber);
    const id =
      this.#byName.get(traded.party.toLowerCase()) ??
      (number === "" ? undefined : this.#byNumber.get(number));
    const known = id === undefined ? undefined : this.#contacts.get(id);
    const told = this.#told(traded);
    if (id === undefined || !known) return { contact: null, party: told };
    const country = known.country ?? told.country;
    return {
      contact: id,
      party: {
        ...known,
        country,
        region: known.region ?? (country === told.country ? told.region : null),
        taxNumber: known.taxNumber ?? told.taxNumber,
      },
    };
  }

  /** Ids by name of the parties of documents; those that are not there yet are made, gaps of the others filled. */
  async keep(
    work: Writing,
    clientId: number,
    documents: readonly TradedWith[],
  ): Promise<(traded: TradedWith) => number | null> {
    let next = (await work.lastId("contacts")) + 1;
    const { createdAt, createdBy } = work.made;
    const fresh: unknown[][] = [];
    const filled = new Map<number, Party>();
    for (const traded of documents) {
      const found = this.find(traded);
      if (!found) continue;
      const { country, region, taxNumber } = found.party;
      if (found.contact !== null) {
        if (this.#differs(found.contact, found.party)) filled.set(found.contact, found.party);
        continue;
      }
      const registered = found.party.registered === null ? null : 1;
      const made = [next, clientId, `i${next}`, traded.party, country, region, taxNumber, registered];
      fresh.push([...made, createdAt, createdBy]);
      this.#contacts.set(next, found.party);
      this.#byName.set(traded.party.toLowerCase(), next);
      if (taxNumber) this.#byNumber.set(numberKey(taxNumber), next);
      next += 1;
    }
    await work.insertRows("contacts", CONTACT_COLUMNS, fresh);
    for (const [id, { country, region, taxNumber }] of filled)
      await work.run("UPDATE contacts SET country = $1, region = $2, tax_number = $3 WHERE id = $4", [
        country,
        region,
        taxNumber,
        id,
      ]);
    return (traded) => this.find(traded)?.contact ?? null;
  }

  #differs(id: number, { country, region, taxNumber }: Party): boolean {
    const known = this.#contacts.get(id);
    return known?.country !== country || known.region !== region || known.taxNumber !== taxNumber;
  }

  #told({ party, partyNumber, partyCountry, partyRegion }: TradedWith): Party {
    const country = /^[a-z]{2}$/i.test(partyCountry) ? partyCountry.toUpperCase() : null;
    return {
      name: party,
      country,
      region: this.#region(country, partyRegion),
      registered: partyNumber === "" ? null : true,
      taxNumber: partyNumber || null,
      standing: {},
    };
  }

  /** A region the country has, as its jurisdiction writes it: "27-Maharashtra" and "27" are the same. */
  #region(country: string | null, told: string): string | null {
    if (told === "") return null;
    const pack = country === null ? undefined : this.#work.packs.ofCountry(country);
    const written = [told, ...told.split(/\s*[-–(]\s*/)];
    const known = written.find((one) => one !== "" && isRegionOf(pack, one));
    return known === undefined ? null : regionOf(pack, known, null);
  }
}

const CONTACT_COLUMNS = [
  "id",
  "client_id",
  "ref",
  "name",
  "country",
  "region",
  "tax_number",
  "registered",
  "created_at",
  "created_by",
];

/** A tax number as the same one however it is written: without the country in front of it. */
export function numberKey(number: string): string {
  return bareNumber(number).replace(/^[A-Z]{2}(?=\d)/, "");
}
