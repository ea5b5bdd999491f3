/** The emirates by ISO 3166-2 code, in the order of the form; `tag` is the letter of their line in box 1. */
export const EMIRATES = [
  { code: "AZ", name: "Abu Dhabi", aliases: ["AD", "AUH"], tag: "a" },
  { code: "DU", name: "Dubai", aliases: ["DXB"], tag: "b" },
  { code: "SH", name: "Sharjah", tag: "c" },
  { code: "AJ", name: "Ajman", tag: "d" },
  { code: "UQ", name: "Umm Al Quwain", tag: "e" },
  { code: "RK", name: "Ras Al Khaimah", tag: "f" },
  { code: "FU", name: "Fujairah", tag: "g" },
];
