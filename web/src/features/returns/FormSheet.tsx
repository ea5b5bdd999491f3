import { drawnTables } from "@fiscalon/core/returns/drawnTables";
import { shownBox } from "@fiscalon/core/returns/shownBox";
import { isTold } from "@fiscalon/core/returns/toldBox";
import type { BoxView, ReturnView } from "@fiscalon/contract/returns";
import { useState } from "react";
import { usePacks } from "../../api/packs.ts";
import { formNow } from "../../app/formBoxes.ts";
import { useScope } from "../../app/scope.ts";
import { ViewTabs } from "../../kit/ViewTabs.tsx";
import { BoxList } from "./BoxList.tsx";
import { FormTables } from "./FormTables.tsx";

/** From how many boxes on only what holds something is shown first. */
const MANY = 30;

/** The form: as its authority draws it, and box by box beside the period before. */
export function FormSheet({ view }: { view: ReturnView }) {
  const packs = usePacks();
  const { client } = useScope();
  const [all, setAll] = useState(view.boxes.length <= MANY);
  const [chosen, setChosen] = useState<"drawn" | "boxes">("drawn");
  const registration = client?.registrations.find((one) => one.id === view.registration);
  const form = registration ? formNow(packs, registration, view.to) : undefined;
  const shown = form && shownBox(form, view.net);
  const drawn = form?.tables && chosen === "drawn" ? drawnTables(form.tables, view.boxes, shown) : null;
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-1">
        {form?.tables && (
          <ViewTabs
            label="How the form is shown"
            views={[
              ["drawn", "As the form draws it"],
              ["boxes", "Beside the period before"],
            ]}
            chosen={chosen}
            onChoose={setChosen}
          />
        )}
        {view.boxes.length > MANY && (
          <label className="flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={all}
              onChange={(event) => setAll(event.target.checked)}
            />
            {drawn ? "All tables" : `All ${view.boxes.length} boxes`}, also those with nothing in them
          </label>
        )}
      </div>
      {drawn ? (
        <FormTables
          tables={all ? drawn : drawn.filter(({ rows }) => rows.some(({ cells }) => cells.some(tells)))}
          view={view}
          shown={shown}
        />
      ) : (
        <BoxList
          boxes={all ? view.boxes : view.boxes.filter((box) => isTold(box) || box.id === shown)}
          view={view}
          shown={shown}
        />
      )}
    </>
  );

  function tells(box: BoxView | null | undefined): boolean {
    return !!box && (isTold(box) || box.id === shown);
  }
}
