import { Tip } from "./Tip.tsx";

/** Beside a figure that should be looked up before it is relied on: a sign with the reason behind it. */
export function DoubtMark({ says, className = "" }: { says: string; className?: string }) {
  return (
    <Tip
      words={`To be looked up: ${says}`}
      className={`inline-flex items-center gap-0.5 whitespace-nowrap text-warning ${className}`}
    >
      <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden>
        <circle cx="5.5" cy="5.5" r="4.7" fill="none" stroke="currentColor" strokeDasharray="2.4 1.2" />
        <path d="M5.5 2.8v3.1" stroke="currentColor" strokeWidth="1.3" />
        <circle cx="5.5" cy="7.8" r="0.8" fill="currentColor" />
      </svg>
      <span className="sr-only">to be looked up</span>
    </Tip>
  );
}
