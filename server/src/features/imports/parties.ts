import { numberKey } from "@fiscalon/core/incoming/numberKey";
import type { FoundParty, TradedWith } from "@fiscalon/core/incoming/registerReading";
import type { Party } from "@fiscalon/core/model/party";
import { isRegionOf, regionOf } from "@fiscalon/core/supply/regions";
import type { Work, Writing } from "../../base/work.ts";
import type { ClientRecord } from "../../db/models.ts";
import { contactParties } from "../../books/documents/addSurroundings.ts";

/** Who the parties of a file are: by name, otherwise by tax number. */
export class Parties {
  readonly #work: Work;
  /** The country of the business: of whoever the file tells no other. */
  readonly #home: string;
  readonly #contacts: Map<number, Party>;
  readonly #byName = new Map<string, number>();
  readonly #byNumber = new Map<string, number>();
  /** What the file told of each the first time: it counts for all its documents. */
  readonly #first = new Map<string, Party>();

  private constructor(work: Work, home: string, contacts: Map<number, Party>) {
    this.#work = work;
    this.#home = home;
    this.#contacts = contacts;
    for (const [id, { name, taxNumber }] of contacts) {
      if (name) this.#byName.set(name.toLowerCase(), id);
      if (taxNumber) this.#byNumber.set(numberKey(taxNumber), id);
    }
  }

  static async of(work: Work, client: Pick<ClientRecord, "id" | "country">): Promise<Parties> {
    const contacts = await contactParties(work, "client_id = $1", [client.id]);
    return new Parties(work, client.country, contacts);
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
    const key = traded.party.toLowerCase();
    const first = this.#first.get(key) ?? told;
    this.#first.set(key, first);
    if (id === undefined || !known)
      return { contact: null, party: first, otherRegion: otherRegion(first, told) };
    const country = known.country ?? first.country;
    const there = first.country === null || country === first.country;
    const party = {
      ...known,
      country,
      region: known.region ?? (there ? first.region : null),
      taxNumber: known.taxNumber ?? first.taxNumber,
    };
    return { contact: id, party, otherRegion: otherRegion(party, told) };
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
    const pack = this.#work.packs.ofCountry(country ?? this.#home);
    const written = [told, ...told.split(/\s*[-–(]\s*/)];
    const known = written.find((one) => one !== "" && isRegionOf(pack, one));
    return known === undefined ? null : regionOf(pack, known, null);
  }
}

function otherRegion({ region }: Party, told: Party): string | null {
  return told.region !== null && region !== null && told.region !== region ? told.region : null;
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
