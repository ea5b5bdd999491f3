import Papa from "papaparse";
import { recogniseRegister } from "@fiscalon/core/formats/registers/recogniseRegister";
import { registerDocuments, RegisterReader } from "@fiscalon/core/incoming/registerDocuments";
import type { RegisterContent, RegisterReading } from "@fiscalon/core/incoming/registerReading";
import { Packs } from "@fiscalon/core/model/packs";
import { gb } from "@fiscalon/core/packs/gb/pack";

/** A register of a British business as the program reads it: recognised, cut into cells, read. */
export function readRegister(text: string, more: Partial<RegisterReading> = {}) {
  const { data, reading } = britishRegister(text, more);
  return registerDocuments(data, reading);
}

/** The same, each document taken as soon as it is whole. */
export function readByRows(text: string): RegisterContent {
  const { data, reading } = britishRegister(text, {});
  const found = { problems: [], notices: [], choices: [], rows: 0, net: 0, tax: 0 };
  const reader = new RegisterReader(reading, found);
  const documents = data.flatMap((row) => {
    reader.take(row);
    return reader.whole();
  });
  return { ...found, documents: [...documents, ...reader.rest()] };
}

function britishRegister(
  text: string,
  more: Partial<RegisterReading>,
): { data: string[][]; reading: RegisterReading } {
  const shape = recogniseRegister(text, "dmy");
  const { data } = Papa.parse<string[]>(text, { delimiter: shape.delimiter });
  const reading: RegisterReading = {
    ...shape,
    digits: 2,
    direction: "sale",
    codeForBlank: "Z",
    codeForZero: "Z",
    account: null,
    codes: new Map(gb.codes.map((code) => [code.code, code])),
    schedules: gb.schedules,
    accounts: new Set(["4000"]),
    leftOut: new Set(),
    mended: new Map(),
    chosen: {},
    usual: "S20",
    rules: gb.rules,
    packs: new Packs([gb]),
    site: { country: "GB", region: null },
    find: () => undefined,
    ownNumbers: [],
    ...more,
  };
  return { data, reading };
}
