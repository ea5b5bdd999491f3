import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { ProposedRegistration } from "@fiscalon/core/supply/proposeSetup";
import { usePacks } from "../../api/packs.ts";
import type { RegistrationDraft } from "../../records/RegistrationFields.tsx";
import { RegistrationFields, useNumberCheck } from "../../records/RegistrationFields.tsx";

/** One registration that is proposed: taken or not, and if taken, its number, start and rhythm. */
export function ProposedRegistrationFields({
  pack,
  proposed,
  on,
  draft,
  onChange,
  error,
}: {
  pack: JurisdictionPack;
  proposed: ProposedRegistration;
  on: boolean;
  draft: RegistrationDraft;
  onChange: (change: { on?: boolean; draft?: RegistrationDraft }) => void;
  error: (field: "number" | "from") => string | undefined;
}) {
  const packs = usePacks();
  const numberCheck = useNumberCheck(pack, draft.number);
  return (
    <fieldset className="border-t border-base-300 pt-3">
      <label className="mb-2 flex cursor-pointer items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={on}
          onChange={(event) => onChange({ on: event.target.checked })}
        />
        <span className="font-semibold">Registered for {packs.levyNames(proposed.levies)}</span>
        <span className="quiet">
          {proposed.why} Filed with {proposed.authority}.
        </span>
      </label>
      {on && (
        <RegistrationFields
          pack={pack}
          value={draft}
          onChange={(next) => onChange({ draft: next })}
          error={error}
          numberCheck={numberCheck}
        />
      )}
    </fieldset>
  );
}
