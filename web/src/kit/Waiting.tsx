import { useEffect, useState } from "react";

/** Until something takes longer than this, saying that it takes time only flickers. */
const PATIENCE_MS = 300;

/** What stands where something is still being fetched; it says so once it takes longer than a moment. */
export function Waiting({ what }: { what: string }) {
  const [long, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <p role="status" aria-busy="true" className="quiet p-6">
      {long && `Fetching ${what} …`}
    </p>
  );
}
