import clsx from "clsx";

const MARKS: Record<string, { word: string; tone: string; shape: React.ReactNode }> = {
  ahead: {
    word: "ahead",
    tone: "quiet",
    shape: <circle cx="5" cy="5" r="3.5" fill="none" stroke="currentColor" strokeDasharray="2 1.5" />,
  },
  open: {
    word: "open",
    tone: "quiet",
    shape: <circle cx="5" cy="5" r="3.5" fill="none" stroke="currentColor" />,
  },
  "in-review": {
    word: "in review",
    tone: "text-warning",
    shape: <path d="M5 1 9 5 5 9 1 5Z" fill="none" stroke="currentColor" />,
  },
  sealed: {
    word: "sealed",
    tone: "text-info",
    shape: <rect x="1.5" y="1.5" width="7" height="7" fill="none" stroke="currentColor" strokeWidth="1.6" />,
  },
  filed: {
    word: "filed",
    tone: "text-base-content",
    shape: <circle cx="5" cy="5" r="4" fill="currentColor" />,
  },
  settled: {
    word: "settled",
    tone: "text-success",
    shape: <path d="M1.5 0.5h7v9l-3.5-2.4-3.5 2.4Z" fill="currentColor" />,
  },
};

/** The state of a period: word, shape and tone together, never colour alone. */
export function StateMark({ state, suffix = "" }: { state: string; suffix?: string }) {
  const mark = MARKS[state];
  if (!mark) return <span>{state}</span>;
  return (
    <span className={clsx("inline-flex items-center gap-1 text-[12px]", mark.tone)}>
      <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden>
        {mark.shape}
      </svg>
      {mark.word}
      {suffix}
    </span>
  );
}
