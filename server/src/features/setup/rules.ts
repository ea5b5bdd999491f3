import { FiscalError } from "@fiscalon/core/errors";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";

/** Replaces a client's supply rules, in the order given. Each must lead to a code of its side. */
export async function saveRules(
  work: Work,
  clientId: number,
  rules: readonly (Omit<SupplyRule, "id"> & { id?: string })[],
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const named = withIds(rules);
    named.forEach((rule, index) => {
      if (rule.code === "") return;
      const code = setup.effect.codes.get(rule.code);
      if (code && (code.direction === "both" || code.direction === rule.direction)) return;
      throw new FiscalError(
        "supply/unknown-code",
        code
          ? `${rule.code} is for ${code.direction}s, the rule for ${rule.direction}s.`
          : `There is no tax code ${rule.code}. Choose one of the list.`,
        `rules[${index}].code`,
      );
    });
    await work.models.rules.destroy({ where: { clientId }, ...work.options });
    await work.models.rules.bulkCreate(
      named.map((definition, position) => ({
        clientId,
        ref: definition.id,
        position,
        definition,
        ...work.made,
      })),
      work.options,
    );
    await work.record({
      client: clientId,
      action: "change",
      entity: "rules",
      id: null,
      before: setup.plain.rules,
      after: named,
    });
  });
}

/** Rules without an id, or with one that is taken, get the next free number. */
function withIds(rules: readonly (Omit<SupplyRule, "id"> & { id?: string })[]): SupplyRule[] {
  const taken = new Set<string>();
  let next = 1;
  return rules.map((rule) => {
    let id = rule.id ?? "";
    while (id === "" || taken.has(id)) {
      id = `own-${next}`;
      next += 1;
    }
    taken.add(id);
    return { ...rule, id };
  });
}
