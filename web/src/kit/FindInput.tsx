/** The field above a list that looks for what is typed. */
export function FindInput({
  label,
  placeholder,
  value,
  onChange,
}: {
  label: string;
  placeholder: string;
  value: string;
  onChange: (text: string) => void;
}) {
  return (
    <input
      className="entry w-[200px]"
      placeholder={placeholder}
      aria-label={label}
      value={value}
      onChange={({ target }) => onChange(target.value)}
    />
  );
}
