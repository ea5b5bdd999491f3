import { isDeepStrictEqual } from "node:util";
import { FiscalError } from "@fiscalon/core/errors";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { ruleBody } from "@fiscalon/contract/code";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";

type GivenRule = Omit<SupplyRule, "id"> & { id?: string };

/**
 * Replaces a client's supply rules, in the order given. Each must lead to a code of its side.
 * @param seen the rules that were there when the change was begun; others now, and nothing is changed
 * @throws FiscalError `rules/changed` with the rules as they are now
 */
export async function saveRules(
  work: Work,
  clientId: number,
  rules: readonly GivenRule[],
  seen?: readonly GivenRule[],
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    if (seen && !isDeepStrictEqual(plain(seen), plain(setup.plain.rules))) {
      throw new FiscalError(
        "rules/changed",
        "Somebody changed the rules since you opened them. Look at both, and choose.",
        "seen",
        { now: setup.plain.rules },
      );
    }
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
      action: "change",
      entity: "rules",
      id: null,
      before: setup.plain.rules,
      after: named,
    });
  });
}

/** As they go over the line: what is not there is left out, what is usual is written. */
function plain(rules: readonly GivenRule[]): unknown {
  return rules.map((rule) => ruleBody.validate(JSON.parse(JSON.stringify(rule))).value as unknown);
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
