import { useRef } from "react";

/** A button that asks for a JSON file and hands over what is in it; `label` names the hidden field. */
export function FileButton({
  label,
  busy,
  children,
  onFile,
}: {
  label: string;
  busy: boolean;
  children: string;
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        className="hidden"
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
      <button type="button" className="action" onClick={() => input.current?.click()} disabled={busy}>
        {busy ? "Opening …" : children}
      </button>
    </>
  );
}
