import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link, useNavigate } from "react-router";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { minorDigits } from "@fiscalon/core/money/currency";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { useContacts } from "../../app/records.ts";
import { BLANK_LINE, blankDraft, bodyOf, draftOf, isBlank, placeOf } from "./draft.ts";
import { keepDraft, keptDraft } from "./draftStore.ts";
import type { Draft, DraftAround, DraftLine } from "./draft.ts";
import { TemplateDialog } from "./TemplateDialog.tsx";
import { TemplateMenu } from "./TemplateMenu.tsx";
import { useTemplates } from "./useTemplates.ts";
import { BesidePanel } from "./BesidePanel.tsx";
import { DocumentMenu } from "./DocumentMenu.tsx";
import { confirmedBy } from "./confirmed.ts";
import type { Reasons } from "./confirmed.ts";
import { ConfirmDialog, ConfirmTyped, VoidDialog } from "./DocumentDialogs.tsx";
import { DocumentFacts } from "./DocumentFacts.tsx";
import { DocumentHead } from "./DocumentHead.tsx";
import { creditHolds } from "@fiscalon/core/facts/creditHolds";
import { DocumentTotals } from "./DocumentTotals.tsx";
import { EntryMode } from "./EntryMode.tsx";
import { EffectPanel } from "./EffectPanel.tsx";
import { JournalGrid } from "./JournalGrid.tsx";
import { LineDetails } from "./LineDetails.tsx";
import { LineGrid } from "./LineGrid.tsx";
import { CollectionLine } from "./CollectionLine.tsx";
import { CreateDialogs } from "./CreateDialogs.tsx";
import type { Creating } from "./CreateDialogs.tsx";
import { lineFromItem, withProposals } from "./proposals.ts";
import { useChoices } from "./useChoices.ts";
import { draftEffectOf } from "./draftEffect.ts";
import { effectOf, setupWhenPosted, useEffectOf } from "./useEffectOf.ts";
import { useLineItems } from "./useLineItems.ts";
import { useOriginal } from "./useOriginal.ts";

interface Props {
  document: DocumentView | null;
  initial: Draft;
  setup: { plain: PlainSetup; effect: EffectSetup };
  /** Where what is typed is kept in this browser; null where another tab holds it. */
  keptUnder: string | null;
}

/** The editor of a document, and beside it what the document does. */
export function DocumentEditor({ document, initial, setup, keptUnder }: Props) {
  const { client, path, setDraft: showInBar } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: templates = [] } = useTemplates();
  const [search, setSearch] = useState("");
  const { data: contacts = [] } = useContacts(search);
  const [raw, setRaw] = useState(initial);
  const [itemSearch, setItemSearch] = useState("");
  const items = useLineItems(raw.lines, itemSearch);
  const [focusLine, setFocusLine] = useState(0);
  const [quantities, setQuantities] = useState(
    initial.lines.some((line) => line.quantity !== "" || line.discount !== ""),
  );
  const [creating, setCreating] = useState<Creating | null>(null);
  const [dialog, setDialog] = useState<"void" | "typed" | "template" | null>(null);
  const [posted, setPosted] = useState<DocumentView | null>(null);
  const original = useOriginal(client?.id ?? 0, raw);
  const readOnly = document !== null && (document.locked !== null || document.state !== "posted");
  const recordedRates = readOnly ? document.recordedRates : original?.recordedRates;
  const around = useMemo<DraftAround>(
    () => ({ places: setup.plain.places, items, original, recordedRates }),
    [setup, items, original, recordedRates],
  );
  const draft = useMemo(() => withProposals(raw, setup.effect, around), [raw, setup, around]);
  const lockedIn = document?.locked?.period;
  const effectSetup = useMemo(() => setupWhenPosted(setup.effect, lockedIn), [setup, lockedIn]);
  const live = useEffectOf(useDeferredValue(draft), effectSetup, around);
  const kind = DOCUMENT_KINDS[draft.kind];
  const [start] = useState(initial);
  const resumed = document !== null && keptUnder !== null && keptDraft(keptUnder) !== null;
  const changed = raw !== start || resumed;
  const clientId = client?.id ?? 0;

  useEffect(() => {
    if (keptUnder === null || raw === start) return;
    keepDraft(keptUnder, raw.lines.every(isBlank) && raw.number === "" ? null : raw);
  }, [raw, start, keptUnder]);
  useEffect(() => {
    showInBar(document || !live.effect ? null : draftEffectOf(live.effect, setup.effect));
    return () => showInBar(null);
  }, [live.effect, document, showInBar, setup.effect]);

  const update = (change: Partial<Draft>) => {
    setPosted(null);
    setRaw((now) => ({ ...now, ...change }));
  };
  const updateLine = (index: number, change: Partial<DraftLine>) => {
    setPosted(null);
    setRaw((now) => ({
      ...now,
      lines: now.lines.map((line, at) => (at === index ? changedLine(line, change) : line)),
    }));
  };
  const changedLine = (line: DraftLine, change: Partial<DraftLine>): DraftLine => {
    const item = change.item ? items.find((one) => one.ref === change.item) : undefined;
    return item && kind.direction
      ? lineFromItem({ ...line, ...change }, item, kind.direction)
      : { ...line, ...change };
  };

  const save = useMutation({
    mutationFn: (reasons: Reasons) => {
      const body = { ...bodyOf(draft), ...reasons };
      return document
        ? api.put("/clients/:id/documents/:document", [clientId, document.id], body)
        : api.post("/clients/:id/documents", [clientId], body);
    },
    onSuccess: async (saved) => {
      setDialog(null);
      await queries.invalidateQueries({ queryKey: keys.client(clientId) });
      if (keptUnder !== null) keepDraft(keptUnder, null);
      if (document) await navigate(path(`books/documents/${saved.id}`), { replace: true });
      else {
        setRaw({ ...blankDraft(raw.kind), date: raw.date, prices: raw.prices });
        setPosted(saved);
      }
    },
    onError: () => setDialog(null),
  });
  const takeOut = useMutation({
    mutationFn: (reason: string) =>
      api.post("/clients/:id/documents/:document/void", [clientId, document?.id], { reason }),
    onSuccess: async () => {
      setDialog(null);
      await queries.invalidateQueries({ queryKey: keys.client(clientId) });
    },
    onError: () => setDialog(null),
  });

  const idle = readOnly || save.isPending || (document !== null && !changed);
  const typedOff = (live.effect?.warnings ?? []).filter((one) => one.code.startsWith("document/typed-tax"));
  /** Looks at what is typed this very moment; the panel beside may be a keystroke behind. */
  const post = () => {
    const { effect } = effectOf(draft, setup.effect, around);
    if (idle || !effect) return;
    if (effect.warnings.some((one) => one.code.startsWith("document/typed-tax"))) setDialog("typed");
    else save.mutate({});
  };
  useHotkeys("mod+enter", post, { enableOnFormTags: true, preventDefault: true });

  const { accountChoices, codeChoices, itemChoices } = useChoices(setup.plain, items, kind.direction);
  const country = placeOf(draft, setup.plain.places)?.country ?? client?.country ?? "";
  const home = setup.effect.packs.ofCountry(country);
  const focused = draft.lines[focusLine];
  const isJournal = kind.direction === null;
  const saveError = confirmedBy(save.error) ? null : save.error;

  return (
    <>
      <Sheet
        title={KIND_NAMES[draft.kind]}
        aside={
          document
            ? `${document.input.number}${document.state === "posted" ? "" : ` · ${document.state}`}`
            : changed
              ? "draft, kept in this browser"
              : "new"
        }
        actions={
          <>
            {document && (
              <DocumentMenu
                document={document}
                readOnly={readOnly}
                onTemplate={() => setDialog("template")}
                onVoid={() => setDialog("void")}
              />
            )}
            {!document && templates.length > 0 && !isJournal && (
              <TemplateMenu templates={templates} onLines={(lines) => update({ lines })} draft={draft} />
            )}
            {!readOnly && (
              <button
                type="button"
                className="action main"
                disabled={idle || live.effect === null}
                onClick={post}
              >
                {document ? "Save correction" : "Post"}{" "}
                <kbd className="rounded border border-current px-1 font-mono text-[11px] opacity-80">
                  Ctrl ⏎
                </kbd>
              </button>
            )}
          </>
        }
      >
        {posted && (
          <p role="status" className="note-row mb-3">
            Posted {KIND_NAMES[posted.input.kind].toLowerCase()} <strong>{posted.input.number}</strong>.{" "}
            <Link className="word-link" to={path(`books/documents/${posted.id}`)}>
              Open it
            </Link>
          </p>
        )}
        {document && <DocumentFacts document={document} />}
        {document && !readOnly && keptUnder === null && (
          <p className="note-row mb-3">Another tab of this browser is correcting this document.</p>
        )}
        {document && changed && keptUnder !== null && (
          <p className="note-row mb-3">
            A correction is begun and kept in this browser.{" "}
            <button
              type="button"
              className="word-link"
              onClick={() => {
                keepDraft(keptUnder, null);
                setRaw(draftOf(document));
              }}
            >
              Drop it
            </button>
          </p>
        )}
        <ErrorNote error={saveError ?? takeOut.error} />
        <DocumentHead
          draft={draft}
          contacts={contacts}
          places={setup.plain.places}
          base={setup.plain.currency}
          original={original}
          readOnly={readOnly}
          onSearch={setSearch}
          onCreateContact={(text) => setCreating({ what: "contact", text })}
          onChange={update}
        />
        {!isJournal && (
          <EntryMode
            prices={draft.prices}
            quantities={quantities}
            readOnly={readOnly}
            onPrices={(prices) => update({ prices })}
            onQuantities={setQuantities}
            onNewItem={
              itemChoices.length === 0 ? () => setCreating({ what: "item", line: focusLine, text: "" }) : null
            }
          />
        )}
        {isJournal ? (
          <JournalGrid
            draft={draft}
            accounts={accountChoices}
            readOnly={readOnly}
            onLine={updateLine}
            onLines={(lines) => update({ lines })}
          />
        ) : (
          <LineGrid
            draft={draft}
            live={live}
            setup={setup.effect}
            accounts={accountChoices}
            codes={codeChoices}
            items={itemChoices}
            onSearchItems={setItemSearch}
            digits={minorDigits(draft.currency || setup.plain.currency)}
            quantities={quantities}
            readOnly={readOnly}
            onLine={updateLine}
            onLines={(lines) => update({ lines })}
            onFocusLine={setFocusLine}
            onCreate={setCreating}
            onContact={draft.contact ? () => setCreating({ what: "open-contact" }) : null}
            home={home}
          />
        )}
        {!isJournal && focused && (
          <LineDetails
            index={focusLine}
            line={focused}
            live={live}
            setup={setup.effect}
            country={country}
            digits={minorDigits(draft.currency || setup.plain.currency)}
            kind={draft.kind}
            readOnly={readOnly}
            onChange={(change) => updateLine(focusLine, change)}
          />
        )}
        {live.error && (
          <p role="alert" className="mt-3 text-error">
            {live.error.message}
          </p>
        )}
        {!readOnly && (
          <CollectionLine draft={draft} live={live} document={document?.id ?? null} onChange={update} />
        )}
        <DocumentTotals
          draft={draft}
          live={live}
          document={document}
          base={setup.plain}
          accounts={setup.plain.accounts}
          holds={creditHolds(setup.effect)}
          readOnly={readOnly}
          onChange={update}
        />
      </Sheet>
      <BesidePanel documentId={document?.id ?? null}>
        <EffectPanel
          draft={draft}
          live={live}
          setup={setup.effect}
          line={focusLine}
          posted={document !== null && !changed}
        />
      </BesidePanel>
      {dialog === "template" && document && (
        <TemplateDialog document={bodyOf(draft)} seen={seenOf(document)} onClose={() => setDialog(null)} />
      )}
      <CreateDialogs
        creating={creating}
        contact={draft.contact}
        plain={setup.plain}
        onContact={(contact) => update({ contact })}
        onLine={updateLine}
        onItem={(index, item) => {
          updateLine(index, lineFromItem(raw.lines[index] ?? BLANK_LINE, item, kind.direction ?? "sale"));
          setQuantities(true);
        }}
        onClose={() => setCreating(null)}
      />
      <VoidDialog
        open={dialog === "void"}
        number={draft.number}
        onClose={() => setDialog(null)}
        onVoid={(reason) => takeOut.mutate(reason)}
      />
      <ConfirmDialog
        error={save.error}
        onClose={() => save.reset()}
        onConfirm={(reason) => save.mutate({ ...save.variables, ...reason })}
      />
      <ConfirmTyped
        open={dialog === "typed"}
        warnings={typedOff.map((warning) => warning.text)}
        onClose={() => setDialog(null)}
        onConfirm={() => save.mutate({})}
      />
    </>
  );
}
