import Papa from "papaparse";
import { recogniseRegister } from "@fiscalon/core/formats/registers/recogniseRegister";
import { registerDocuments } from "@fiscalon/core/incoming/registerDocuments";
import type { RegisterReading } from "@fiscalon/core/incoming/registerReading";
import { Packs } from "@fiscalon/core/model/packs";
import { gb } from "@fiscalon/core/packs/gb/pack";

/** A register of a British business as the program reads it: recognised, cut into cells, read. */
export function readRegister(text: string, more: Partial<RegisterReading> = {}) {
  const shape = recogniseRegister(text, "dmy");
  const { data } = Papa.parse<string[]>(text, { delimiter: shape.delimiter });
  return registerDocuments(data, {
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
  });
}
