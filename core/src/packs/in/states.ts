import type { Region } from "../../model/pack.ts";

type Row = [code: string, name: string, iso: string, unionTerritory?: true];

// prettier-ignore
const rows: Row[] = [
  ["01", "Jammu and Kashmir", "JK"], ["02", "Himachal Pradesh", "HP"], ["03", "Punjab", "PB"], ["04", "Chandigarh", "CH", true],
  ["05", "Uttarakhand", "UK"], ["06", "Haryana", "HR"], ["07", "Delhi", "DL"], ["08", "Rajasthan", "RJ"], ["09", "Uttar Pradesh", "UP"],
  ["10", "Bihar", "BR"], ["11", "Sikkim", "SK"], ["12", "Arunachal Pradesh", "AR"], ["13", "Nagaland", "NL"], ["14", "Manipur", "MN"],
  ["15", "Mizoram", "MZ"], ["16", "Tripura", "TR"], ["17", "Meghalaya", "ML"], ["18", "Assam", "AS"], ["19", "West Bengal", "WB"],
  ["20", "Jharkhand", "JH"], ["21", "Odisha", "OD"], ["22", "Chhattisgarh", "CG"], ["23", "Madhya Pradesh", "MP"], ["24", "Gujarat", "GJ"],
  ["25", "Daman and Diu", "DD", true], ["26", "Dadra and Nagar Haveli and Daman and Diu", "DH", true], ["27", "Maharashtra", "MH"],
  ["28", "Andhra Pradesh before the split", "AD"], ["29", "Karnataka", "KA"], ["30", "Goa", "GA"], ["31", "Lakshadweep", "LD", true],
  ["32", "Kerala", "KL"], ["33", "Tamil Nadu", "TN"], ["34", "Puducherry", "PY"], ["35", "Andaman and Nicobar Islands", "AN", true],
  ["36", "Telangana", "TS"], ["37", "Andhra Pradesh", "AP"], ["38", "Ladakh", "LA", true], ["97", "Other Territory", "OT", true],
];

/** Letters that ISO 3166-2 gave before; from memory. */
const FORMER: Readonly<Record<string, string>> = { "05": "UT", "21": "OR", "22": "CT", "36": "TG" };

/** States by their code in tax numbers; the letters of ISO 3166-2 are understood too, now and before. */
export const states: Region[] = rows.map(([code, name, iso]) => ({
  code,
  name,
  aliases: [iso, code.replace(/^0/, ""), ...(FORMER[code] ? [FORMER[code]] : [])],
}));

/** Where UTGST takes the place of SGST. */
export const UNION_TERRITORIES = rows.filter(([, , , territory]) => territory).map(([code]) => code);
export const SGST_STATES = ["", ...rows.filter(([, , , territory]) => !territory).map(([code]) => code)];

/** States whose quarterly return is due on the 24th; the others' on the 22nd. */
export const DUE_ON_24TH = rows
  .map(([code]) => code)
  .filter((code) => code <= "21" || code === "38" || code === "97");
