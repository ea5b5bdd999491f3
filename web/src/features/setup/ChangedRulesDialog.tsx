import type { Packs } from "@fiscalon/core/model/packs";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { Dialog, DialogActions } from "../../kit/Dialog.tsx";
import type { RuleChange } from "./ruleChange.ts";
import { placeWords } from "./ruleWords.ts";

/** Two people changed the rules: both versions of the one at hand, and the choice between them. */
export function ChangedRulesDialog({
  change: { was, shallBe },
  now,
  packs,
  onKeepMine,
  onTakeTheirs,
}: {
  change: RuleChange;
  now: readonly SupplyRule[];
  packs: Packs;
  onKeepMine: () => void;
  onTakeTheirs: () => void;
}) {
  const theirs = was === null ? undefined : now.find(({ id }) => id === was.id);
  const both = was !== null && JSON.stringify(theirs) !== JSON.stringify(was);
  return (
    <Dialog open wide title="The rules were changed meanwhile" onClose={onTakeTheirs}>
      <p className="mb-3">
        {both
          ? "Somebody else changed this very rule since you opened it. Which of the two shall stand?"
          : "Somebody else changed other rules since you opened this one. Yours can be kept beside theirs."}
      </p>
      <table className="sheet-table">
        <thead>
          <tr>
            <th />
            <th>Where it goes</th>
            <th>Class</th>
            <th>Code</th>
            <th>Words</th>
          </tr>
        </thead>
        <tbody>
          {was && <RuleRow name="Before" rule={was} packs={packs} />}
          {both && <RuleRow name="Theirs" rule={theirs} packs={packs} />}
          <RuleRow name="Yours" rule={shallBe ?? undefined} packs={packs} />
        </tbody>
      </table>
      <DialogActions>
        <button type="button" className="action" onClick={onTakeTheirs}>
          Take theirs
        </button>
        <button type="button" className="btn btn-primary" onClick={onKeepMine}>
          {both ? "Keep mine" : "Keep mine beside theirs"}
        </button>
      </DialogActions>
    </Dialog>
  );
}

function RuleRow({ name, rule, packs }: { name: string; rule: SupplyRule | undefined; packs: Packs }) {
  return (
    <tr>
      <td className="font-semibold">{name}</td>
      {rule ? (
        <>
          <td>{placeWords(packs, rule.to)}</td>
          <td>{rule.taxClass}</td>
          <td className="num">{rule.code || "none"}</td>
          <td className="!whitespace-normal">{rule.words}</td>
        </>
      ) : (
        <td colSpan={4}>taken out</td>
      )}
    </tr>
  );
}
