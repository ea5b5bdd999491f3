import { CLASSES, rulesOf } from "../shared/rules.ts";

export const classes = CLASSES.filter(({ id }) => id !== "reduced" && id !== "zero");

// prettier-ignore
export const rules = rulesOf("us", [
  ["sale", "standard", "any", "any", "home", "any", "ST", "Taxable: the taxes of the place it is sourced to.", "SSUTA § 310"],
  ["sale", "standard", "any", "any", "home", "resale", "RS", "For resale, with a certificate.", "SSUTA § 317"],
  ["sale", "standard", "any", "any", "home", "government", "XB", "An exempt buyer, with a certificate.", "SSUTA § 317"],
  ["sale", "standard", "any", "any", "home", "exempt", "XB", "An exempt buyer, with a certificate.", "SSUTA § 317"],
  ["sale", "standard", "any", "any", "abroad", "any", "XI", "Exported by carrier.", "SSUTA § 310"],
  ["sale", "exempt", "any", "any", "any", "any", "XP", "An exempt product or service.", "state sales tax acts"],
  ["sale", "out-of-scope", "any", "any", "any", "any", "XO", "Not a sale.", "state sales tax acts"],
  ["purchase", "standard", "any", "any", "any", "any", "PT", "The vendor's tax is part of the cost.", "state sales tax acts"],
  ["purchase", "exempt", "any", "any", "any", "any", "PR", "No tax.", "state sales tax acts"],
  ["purchase", "out-of-scope", "any", "any", "any", "any", "PR", "No tax.", "state sales tax acts"],
]);
