import { Link } from "react-router";
import type { ReturnView } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { plural } from "../../kit/format.ts";

/** The figures of the law the return rests on that nobody has confirmed yet. */
export function ToLookUp({ doubts }: Pick<ReturnView, "doubts">) {
  const { path } = useScope();
  if (doubts.length === 0) return null;
  return (
    <details className="note-row mb-3">
      <summary className="cursor-pointer">Rests on {plural(doubts.length, "figure")} to be looked up</summary>
      <ul className="mt-1.5 text-[13px]">
        {doubts.map(({ key, about, figure, says, source }) => (
          <li key={key} className="py-0.5">
            <span className="font-semibold">{about}</span>
            {figure && <span className="ml-2 font-mono">{figure}</span>}
            <span className="quiet ml-2">
              {says} ({source})
            </span>
          </li>
        ))}
      </ul>
      <Link className="word-link mt-1.5" to={path("setup/law")}>
        Confirm or correct them
      </Link>
    </details>
  );
}
