import clsx from "clsx";
import { useCombobox } from "downshift";
import { useMemo, useState } from "react";

export interface Choice {
  value: string;
  label: string;
  detail?: string;
}

/**
 * A text field that finds one of many while typing. `onCreate` offers to make what was typed; `cell` draws it for a
 * grid.
 */
export function Combo({
  label,
  value,
  choices,
  onChange,
  onCreate,
  createWord = "Create",
  onSearch,
  cell = false,
  placeholder,
  error,
  mono = false,
  disabled = false,
  inputProps = {},
}: {
  label: string;
  value: string;
  choices: readonly Choice[];
  onChange: (value: string) => void;
  onCreate?: (text: string) => void;
  createWord?: string;
  onSearch?: (text: string) => void;
  cell?: boolean;
  placeholder?: string;
  error?: string | undefined;
  mono?: boolean;
  disabled?: boolean;
  inputProps?: Record<string, unknown>;
}) {
  const chosen = choices.find((choice) => choice.value === value);
  const shown = chosen ? (cell ? chosen.value : chosen.label) : value;
  const [typed, setTyped] = useState<string | null>(null);
  /** What stands in the field this very moment; the list may be a moment behind. */
  const [said] = useState(() => new Said());
  const forget = () => {
    said.hear("");
    setTyped(null);
  };
  const items = useMemo(() => {
    const text = (typed ?? "").trim().toLowerCase();
    const found = exactFirst(
      choices.filter((c) => fits(c, text)),
      text,
    ).slice(0, 60);
    const exact = choices.some((c) => c.label.toLowerCase() === text || c.value.toLowerCase() === text);
    return onCreate && text !== "" && !exact
      ? [...found, { value: CREATE, label: `${createWord} “${(typed ?? "").trim()}”` }]
      : found;
  }, [choices, typed, onCreate, createWord]);
  const { isOpen, getInputProps, getMenuProps, getItemProps, getLabelProps, highlightedIndex } =
    useCombobox<Choice>({
      items,
      selectedItem: chosen ?? null,
      inputValue: typed ?? shown,
      itemToString: (choice) => choice?.label ?? "",
      defaultHighlightedIndex: 0,
      onStateChange: ({ type, selectedItem }) => {
        const types = useCombobox.stateChangeTypes;
        // Who types faster than the list is drawn means what was typed, not what stood first a moment ago.
        const meant =
          selectedItem && (type === types.ItemClick || fits(selectedItem, said.text))
            ? selectedItem
            : exactFirst(choices, said.text).find((one) => said.text !== "" && fits(one, said.text));
        if (
          meant &&
          (type === types.InputKeyDownEnter ||
            type === types.ItemClick ||
            (type === types.InputBlur && typed !== null && typed.trim() !== ""))
        ) {
          if (meant.value === CREATE) {
            if (type !== types.InputBlur) onCreate?.((typed ?? "").trim());
          } else onChange(meant.value);
        } else if (type === types.InputBlur && typed !== null && typed.trim() === "") onChange("");
        if (
          (type === types.InputKeyDownEnter && meant) ||
          type === types.ItemClick ||
          type === types.InputBlur ||
          type === types.InputKeyDownEscape
        )
          forget();
      },
    });
  return (
    <div className="relative">
      <label {...getLabelProps()} className={cell ? "sr-only" : "field-label"}>
        {label}
      </label>
      <input
        {...getInputProps({
          disabled,
          placeholder,
          ...inputProps,
          onFocus: (event: React.FocusEvent<HTMLInputElement>) => event.target.select(),
          // At once and not when the list is told: otherwise the field is drawn with the text of before, and of two keys
          // close together the first is lost.
          onInput: ({ currentTarget: { value: text } }: React.FormEvent<HTMLInputElement>) => {
            said.hear(text);
            setTyped(text);
            onSearch?.(text);
          },
        })}
        aria-invalid={error !== undefined}
        className={clsx(cell ? "cell" : "entry", mono && "font-mono")}
      />
      {error && !cell && (
        <p role="alert" className="mt-1 text-[12.5px] text-error">
          {error}
        </p>
      )}
      <ul
        {...getMenuProps()}
        className={clsx(
          "absolute z-30 mt-0.5 max-h-64 min-w-full overflow-y-auto rounded border border-base-300 bg-base-100 shadow-lg",
          cell ? "w-64" : "w-full",
          !(isOpen && items.length > 0) && "hidden",
        )}
      >
        {isOpen &&
          items.map((choice, index) => (
            <li
              key={choice.value}
              {...getItemProps({ item: choice, index })}
              className={clsx(
                "flex cursor-pointer gap-2 px-2 py-1.5",
                highlightedIndex === index && "bg-accent",
                choice.value === CREATE && "font-semibold text-primary",
              )}
            >
              {cell && choice.value !== CREATE && (
                <span className="w-12 shrink-0 font-mono">{choice.value}</span>
              )}
              <span className="min-w-0 flex-1 truncate">{choice.label}</span>
              {choice.detail && <span className="quiet text-[12px]">{choice.detail}</span>}
            </li>
          ))}
      </ul>
    </div>
  );
}

const CREATE = "\u0000create";

function fits({ value, label, detail }: Choice, text: string): boolean {
  return value === CREATE || `${value} ${label} ${detail ?? ""}`.toLowerCase().includes(text);
}

/** What is called just so stands before what only has the text in it. */
function exactFirst(choices: readonly Choice[], text: string): readonly Choice[] {
  const exact = choices.find(({ value }) => value.toLowerCase() === text);
  return exact ? [exact, ...choices.filter((one) => one !== exact)] : choices;
}

/** The text of the field as it was typed last, known before the list is drawn again. */
class Said {
  #text = "";

  hear(text: string): void {
    this.#text = text;
  }

  get text(): string {
    return this.#text.trim().toLowerCase();
  }
}
