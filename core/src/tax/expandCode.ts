import type { Boxes, CodeVariant, Component, RateSpec, TaxCode } from "../model/taxCode.ts";

/**
 * The codes a definition stands for: itself, or one a value of its family, and each of its variants with another
 * recoverable share.
 * @example expandCode({ code: "S{r}", family: [{ value: "5", percent: "5" }, …], … }) // S5, …
 */
export function expandCode(code: TaxCode): TaxCode[] {
  const members = code.family ? code.family.map((one) => member(code, one)) : [code];
  return members.flatMap((one) => [one, ...(code.variants ?? []).map((variant) => variantOf(one, variant))]);
}

/** All codes of a list by their written form. */
export function codesByName(codes: readonly TaxCode[]): Map<string, TaxCode> {
  return new Map(codes.flatMap(expandCode).map((code) => [code.code, code]));
}

function member(code: TaxCode, { value, percent }: { value: string; percent: string }): TaxCode {
  const put = (text: string) => text.replaceAll("{r}", value).replaceAll("{p}", percent);
  const { family: _, variants: _variants, ...rest } = code;
  return {
    ...rest,
    code: put(code.code),
    name: code.name.replaceAll("{r}", `${percent} %`),
    components: code.components.map((component) => ({
      ...component,
      rate: rateOf(component.rate, put),
      boxes: boxesOf(component.boxes, put),
    })),
  };
}

function rateOf(rate: RateSpec, put: (text: string) => string): RateSpec {
  if ("schedule" in rate) return { ...rate, schedule: put(rate.schedule) };
  if (rate.kind !== "formula") return rate;
  return {
    ...rate,
    formula: put(rate.formula),
    ...(rate.base === undefined ? {} : { base: put(rate.base) }),
  };
}

function boxesOf(boxes: Component["boxes"], put: (text: string) => string): Component["boxes"] {
  const ofVariant = (one: Boxes): Boxes =>
    typeof one === "string" ? put(one) : one.map((route) => ({ ...route, tags: put(route.tags) }));
  return Object.fromEntries(Object.entries(boxes).map(([side, one]) => [side, ofVariant(one)]));
}

function variantOf(code: TaxCode, variant: CodeVariant): TaxCode {
  const { variants: _, ...rest } = code;
  return {
    ...rest,
    code: `${code.code}-${variant.suffix}`,
    name: `${code.name}, ${variant.name}`,
    direction: "purchase",
    ...(variant.inputs ? { inputs: [...(code.inputs ?? []), ...variant.inputs] } : {}),
    ...(variant.wholeShare ? { wholeShare: variant.wholeShare } : {}),
    components: code.components.map((component): Component =>
      component.recoverable === "0"
        ? component
        : {
            ...component,
            recoverable: variant.recoverable,
            ...(variant.cap === undefined ? {} : { cap: variant.cap }),
          },
    ),
  };
}
