/** Members of the European Union by ISO 3166 code, 2026. Greece is GR here and EL in tax numbers. */
export const UNION_MEMBERS: ReadonlySet<string> = new Set([
  "AT", "BE", "BG", "CY", "CZ", "DE", "DK", "EE", "GR", "ES", "FI", "FR", "HR", "HU", "IE", "IT", "LT", "LU",
  "LV", "MT", "NL", "PL", "PT", "RO", "SE", "SI", "SK",
]); // prettier-ignore
