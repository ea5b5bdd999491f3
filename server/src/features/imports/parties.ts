import { numberKey } from "@fiscalon/core/incoming/numberKey";
import type { FoundParty, TradedWith } from "@fiscalon/core/incoming/registerReading";
import type { Party } from "@fiscalon/core/model/party";
import { isRegionOf, regionOf } from "@fiscalon/core/supply/regions";
import type { Work } from "../../base/work.ts";
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
  /** What the file told of each the first time, by name and by tax number: it counts for all its documents. */
  readonly #first = new Map<string, Party>();
  /** What was found, by what was asked: rows of a register share few parties. */
  readonly #found = new Map<string, FoundParty>();
  /** Whom the books do not know: the first has the number -1, the next -2. */
  readonly fresh: Party[] = [];
  /** Contacts the file tells more of than the books know, by id. */
  readonly filled = new Map<number, Party>();

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
    const { party, partyNumber, partyCountry, partyRegion } = traded;
    const asked = [party, partyNumber, partyCountry, partyRegion].join("\n");
    const known = this.#found.get(asked) ?? this.#look(traded);
    this.#found.set(asked, known);
    return known;
  }

  #look(traded: TradedWith): FoundParty {
    const number = numberKey(traded.partyNumber);
    const id =
      this.#byName.get(traded.party.toLowerCase()) ??
      (number === "" ? undefined : this.#byNumber.get(number));
    const known = id === undefined ? undefined : this.#contacts.get(id);
    const told = this.#told(traded);
    const first = this.#firstTold(traded, number, told);
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

  /** Somebody under two names with one tax number is one party, as in the books. */
  #firstTold({ party }: TradedWith, number: string, told: Party): Party {
    const keys = [`name ${party.toLowerCase()}`, ...(number === "" ? [] : [`number ${number}`])];
    const first = keys.flatMap((key) => this.#first.get(key) ?? [])[0] ?? told;
    for (const key of keys) if (!this.#first.has(key)) this.#first.set(key, first);
    return first;
  }

  /**
   * Takes note of who a document is with: somebody the books do not know is made, gaps of the others are filled.
   * @returns the contact, below zero where it is to be made; null where the file names nobody
   */
  take(traded: TradedWith): number | null {
    const found = this.find(traded);
    if (!found) return null;
    const { contact, party } = found;
    if (contact === null) return this.#make(traded, party);
    const made = this.fresh[-1 - contact];
    if (made === undefined && this.#differs(contact, party)) this.filled.set(contact, party);
    return contact;
  }

  #make(traded: TradedWith, found: Party): number {
    const party = { ...found, name: traded.party };
    this.fresh.push(party);
    this.#found.clear();
    const id = -this.fresh.length;
    this.#contacts.set(id, party);
    this.#byName.set(traded.party.toLowerCase(), id);
    if (party.taxNumber) this.#byNumber.set(numberKey(party.taxNumber), id);
    return id;
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
