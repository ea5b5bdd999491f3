import clsx from "clsx";

interface ViewTabsProps<Id extends string> {
  label: string;
  views: readonly (readonly [id: Id, name: string])[];
  chosen: Id;
  onChoose: (id: Id) => void;
  className?: string;
}

/** Words to choose between views of one screen, the chosen one underlined. */
export function ViewTabs<Id extends string>({
  label,
  views,
  chosen,
  onChoose,
  className,
}: ViewTabsProps<Id>) {
  return (
    <div role="tablist" aria-label={label} className={clsx("flex gap-4", className)}>
      {views.map(([id, name]) => (
        <button
          key={id}
          type="button"
          role="tab"
          aria-selected={chosen === id}
          className={clsx(
            "min-h-6 cursor-pointer border-b-2",
            chosen === id ? "border-primary" : "quiet border-transparent",
          )}
          onClick={() => onChoose(id)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}
