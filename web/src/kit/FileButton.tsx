import { useRef } from "react";

/**
 * A button that asks for a file, JSON where nothing else is said, and hands it over; `label` names the hidden field,
 * `doing` is what it says while it is busy.
 */
export function FileButton({
  label,
  accept = ".json,application/json",
  busy,
  doing = "Opening …",
  children,
  onFile,
}: {
  label: string;
  accept?: string;
  busy: boolean;
  doing?: string;
  children: string;
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        aria-label={label}
        disabled={busy}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
      <button type="button" className="action" onClick={() => input.current?.click()} disabled={busy}>
        {busy ? doing : children}
      </button>
    </>
  );
}
