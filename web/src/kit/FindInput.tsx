import { useState } from "react";
import { useDebouncedCallback } from "use-debounce";
import { PAUSE_MS } from "./typing.ts";

/** The field above a list that looks for what is typed, once typing pauses or Enter is pressed. */
export function FindInput({
  label,
  placeholder,
  value,
  onChange,
}: {
  label: string;
  placeholder: string;
  /** What the list shows now. */
  value: string;
  onChange: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  const tell = useDebouncedCallback(onChange, PAUSE_MS);
  return (
    <input
      className="entry w-[200px]"
      placeholder={placeholder}
      aria-label={label}
      value={text}
      onChange={({ target }) => {
        setText(target.value);
        tell(target.value);
      }}
      onKeyDown={({ key }) => key === "Enter" && tell.flush()}
      onBlur={() => tell.flush()}
    />
  );
}
