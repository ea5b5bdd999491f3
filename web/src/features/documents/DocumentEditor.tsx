import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link, useNavigate } from "react-router";
import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { minorDigits } from "@fiscalon/core/money/currency";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { DocumentView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api, ApiError } from "../../kit/api.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { AccountDialog } from "../setup/AccountDialog.tsx";
import { CodeEditor } from "../setup/CodeEditor.tsx";
import { ContactDialog } from "../setup/ContactDialog.tsx";
import { ItemDialog } from "../setup/ItemDialog.tsx";
import { useContacts, useItems } from "../setup/useSetup.ts";
import { BLANK_LINE, blankDraft, bodyOf, isBlank, keepDraft, placeOf } from "./draft.ts";
import type { Draft, DraftAround, DraftLine } from "./draft.ts";
import { KeepDialog } from "../templates/KeepDialog.tsx";
import { TemplateMenu } from "../templates/TemplateMenu.tsx";
import { useTemplates } from "../templates/useTemplates.ts";
import { BesidePanel } from "./BesidePanel.tsx";
import { DocumentMenu } from "./DocumentMenu.tsx";
import { ConfirmTyped, DuplicateDialog, VoidDialog } from "./DocumentDialogs.tsx";
import { DocumentFacts } from "./DocumentFacts.tsx";
import { DocumentHead } from "./DocumentHead.tsx";
import { DocumentTotals } from "./DocumentTotals.tsx";
import { EntryMode } from "./EntryMode.tsx";
import { EffectPanel } from "./EffectPanel.tsx";
import { JournalGrid } from "./JournalGrid.tsx";
import { LineDetails } from "./LineDetails.tsx";
import { LineGrid } from "./LineGrid.tsx";
import type { Creation } from "./LineGrid.tsx";
import { lineFromItem, withProposals } from "./proposals.ts";
import { useChoices } from "./useChoices.ts";
import { draftEffectOf } from "./draftEffect.ts";
import { effectOf, useEffectOf } from "./useEffectOf.ts";
import { useOriginal } from "./useOriginal.ts";

interface Props {
  document: DocumentView | null;
  initial: Draft;
  setup: { plain: PlainSetup; effect: EffectSetup };
  levy: string;
}

/** The editor of a document, and beside it what the document does. */
export function DocumentEditor({ document, initial, setup, levy }: Props) {
  const { client, path, setDraft: showInBar } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: items = [] } = useItems();
  const { data: templates = [] } = useTemplates();
  const [search, setSearch] = useState("");
  const { data: contacts = [] } = useContacts(search, 100);
  const [raw, setRaw] = useState(initial);
  const [focusLine, setFocusLine] = useState(0);
  const [quantities, setQuantities] = useState(
    initial.lines.some((line) => line.quantity !== "" || line.discount !== ""),
  );
  const [creating, setCreating] = useState<Creation | { what: "contact"; text: string } | null>(null);
  const [dialog, setDialog] = useState<"void" | "duplicate" | "typed" | "keep" | null>(null);
  const [posted, setPosted] = useState<DocumentView | null>(null);
  const draft = useMemo(() => withProposals(raw, setup, items), [raw, setup, items]);
  const original = useOriginal(client?.id ?? 0, draft);
  const around = useMemo<DraftAround>(
    () => ({ levy, places: setup.plain.places, original }),
    [levy, setup, original],
  );
  const live = useEffectOf(useDeferredValue(draft), setup.effect, around);
  const kind = DOCUMENT_KINDS[draft.kind];
  const readOnly = document !== null && (document.locked !== null || document.state !== "posted");
  const [start] = useState(initial);
  const changed = raw !== start;
  const clientId = client?.id ?? 0;

  useEffect(() => {
    if (document || !changed) return;
    keepDraft(clientId, raw.kind, raw.lines.every(isBlank) && raw.number === "" ? null : raw);
  }, [raw, changed, document, clientId]);
  useEffect(() => {
    showInBar(document || !live.effect ? null : draftEffectOf(live.effect));
    return () => showInBar(null);
  }, [live.effect, document, showInBar]);

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
    mutationFn: (duplicateReason: string | undefined) => {
      const body = { ...bodyOf(draft, levy), ...(duplicateReason ? { duplicateReason } : {}) };
      const base = `/clients/${clientId}/documents`;
      return document
        ? api.put<DocumentView>(`${base}/${document.id}`, body)
        : api.post<DocumentView>(base, body);
    },
    onSuccess: async (saved) => {
      setDialog(null);
      await queries.invalidateQueries({ queryKey: ["client", clientId] });
      if (document) await navigate(path(`books/documents/${saved.id}`), { replace: true });
      else {
        keepDraft(clientId, raw.kind, null);
        setRaw({ ...blankDraft(raw.kind), date: raw.date, prices: raw.prices });
        setPosted(saved);
      }
    },
    onError: (error) =>
      setDialog(error instanceof ApiError && error.code === "document/duplicate-number" ? "duplicate" : null),
  });
  const takeOut = useMutation({
    mutationFn: (reason: string) =>
      api.post(`/clients/${clientId}/documents/${document?.id}/void`, { reason }),
    onSuccess: async () => {
      setDialog(null);
      await queries.invalidateQueries({ queryKey: ["client", clientId] });
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
    else save.mutate(undefined);
  };
  useHotkeys("mod+enter", post, { enableOnFormTags: true, preventDefault: true });

  const { accountChoices, codeChoices, itemChoices } = useChoices(setup.plain, items, kind.direction);
  const focused = draft.lines[focusLine];
  const isJournal = kind.direction === null;
  const saveError =
    save.error instanceof ApiError && save.error.code === "document/duplicate-number" ? null : save.error;

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
                levy={levy}
                readOnly={readOnly}
                onKeep={() => setDialog("keep")}
                onVoid={() => setDialog("void")}
              />
            )}
            {!document && templates.length > 0 && !isJournal && (
              <TemplateMenu
                templates={templates}
                onLines={(lines) => update({ lines })}
                draft={draft}
                levy={levy}
              />
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
            digits={minorDigits(draft.currency || setup.plain.currency)}
            levy={levy}
            quantities={quantities}
            readOnly={readOnly}
            onLine={updateLine}
            onLines={(lines) => update({ lines })}
            onFocusLine={setFocusLine}
            onCreate={setCreating}
          />
        )}
        {!isJournal && focused && (
          <LineDetails
            index={focusLine}
            line={focused}
            live={live}
            setup={setup.effect}
            country={placeOf(draft, setup.plain.places)?.country ?? client?.country ?? ""}
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
        <DocumentTotals
          draft={draft}
          live={live}
          document={document}
          levy={levy}
          base={setup.plain}
          accounts={setup.plain.accounts}
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
      {dialog === "keep" && document && (
        <KeepDialog document={bodyOf(draft, levy)} onClose={() => setDialog(null)} />
      )}
      {creating?.what === "contact" && (
        <ContactDialog
          contact={null}
          name={creating.text}
          onClose={() => setCreating(null)}
          onDone={(contact) => {
            update({ contact });
            setCreating(null);
          }}
        />
      )}
      {creating?.what === "account" && (
        <AccountDialog
          code={/^\d+$/.test(creating.text) ? creating.text : ""}
          name={/^\d+$/.test(creating.text) ? "" : creating.text}
          onClose={() => setCreating(null)}
          onDone={(account) => {
            updateLine(creating.line, { account });
            setCreating(null);
          }}
        />
      )}
      {creating?.what === "code" && (
        <CodeEditor
          code={null}
          named={creating.text}
          setup={setup.plain}
          onClose={() => setCreating(null)}
          onDone={(code) => {
            updateLine(creating.line, { code, codeTyped: true });
            setCreating(null);
          }}
        />
      )}
      {creating?.what === "item" && (
        <ItemDialog
          name={creating.text}
          onClose={() => setCreating(null)}
          onDone={(item) => {
            updateLine(creating.line, {
              ...lineFromItem(raw.lines[creating.line] ?? BLANK_LINE, item, kind.direction ?? "sale"),
            });
            setQuantities(true);
            setCreating(null);
          }}
        />
      )}
      <VoidDialog
        open={dialog === "void"}
        number={draft.number}
        onClose={() => setDialog(null)}
        onVoid={(reason) => takeOut.mutate(reason)}
      />
      <DuplicateDialog
        open={dialog === "duplicate"}
        message={save.error?.message ?? ""}
        onClose={() => setDialog(null)}
        onConfirm={(reason) => save.mutate(reason)}
      />
      <ConfirmTyped
        open={dialog === "typed"}
        warnings={typedOff.map((warning) => warning.text)}
        onClose={() => setDialog(null)}
        onConfirm={() => save.mutate(undefined)}
      />
    </>
  );
}
