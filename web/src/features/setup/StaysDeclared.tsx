import { plural } from "../../kit/format.ts";

/** What a change of rates comes too late for. */
export function StaysDeclared({ documents }: { documents: number }) {
  if (documents === 0) return <p>Sealed periods stay as declared.</p>;
  return (
    <p>
      {plural(documents, "document")} on sealed returns {documents === 1 ? "stays" : "stay"} as declared, with
      the rate that stood there. If that was wrong, credit {documents === 1 ? "it" : "them"} and post anew in
      an open period.
    </p>
  );
}
