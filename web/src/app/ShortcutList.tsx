import { Dialog, DialogActions } from "../kit/Dialog.tsx";

const SHORTCUTS = [
  ["Ctrl K", "Find a client, document, code, screen or action"],
  ["?", "This list"],
  ["[ and ]", "The period before and after"],
  ["Esc", "Close the trail"],
  ["Ctrl Enter", "Post the document that is open"],
  ["Up, Down, Enter", "Move through lines and lists"],
  ["Alt Backspace", "Remove the line of a document"],
  ["Enter on a figure", "Open its trail"],
];

export function ShortcutList({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open title="Shortcuts" onClose={onClose}>
      <dl className="grid grid-cols-[130px_1fr] gap-y-2">
        {SHORTCUTS.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt>
              <kbd className="kbd kbd-sm font-mono">{keys}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <DialogActions>
        <button type="button" className="action" onClick={onClose}>
          Close
        </button>
      </DialogActions>
    </Dialog>
  );
}
