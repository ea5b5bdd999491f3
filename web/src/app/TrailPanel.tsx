import { keys } from "../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import clsx from "clsx";
import { ArrowLeft, ArrowRight, X } from "lucide-react";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { useScope } from "./scope.ts";
import { api } from "../api/client.ts";
import { shownAmount } from "../kit/Figure.tsx";
import { useTrail } from "../kit/trailContext.ts";
import type { TrailTarget } from "../kit/trailContext.ts";

/** The chain from a figure down to document, rule and source, one step under the other. */
export function TrailPanel() {
  const trail = useTrail();
  return (
    <section aria-label="Trail" className="flex h-full flex-col">
      <header className="flex items-center gap-1 px-4 pt-2 pb-2">
        <h2 className="mr-auto">Trail</h2>
        <IconButton label="Back" onClick={trail.back}>
          <ArrowLeft size={15} />
        </IconButton>
        <IconButton label="Forward" onClick={trail.forward}>
          <ArrowRight size={15} />
        </IconButton>
        <IconButton label="Close trail" onClick={trail.close}>
          <X size={15} />
        </IconButton>
      </header>
      <ol className="flex-1 overflow-y-auto px-4 pb-6">
        {trail.chain.map((target, depth) => (
          <Step
            key={`${depth} ${typeof target === "string" ? target : target.ref}`}
            target={target}
            depth={depth}
            last={depth === trail.chain.length - 1}
            next={trail.chain[depth + 1]}
          />
        ))}
      </ol>
    </section>
  );
}

function IconButton({
  label,
  onClick,
  children,
}: {
  label: string;
  onClick: (() => void) | null;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={onClick === null}
      onClick={() => onClick?.()}
      className="rounded p-1 hover:bg-base-200 disabled:opacity-30"
    >
      {children}
    </button>
  );
}

function Step({
  target,
  depth,
  last,
  next,
}: {
  target: TrailTarget;
  depth: number;
  last: boolean;
  next: TrailTarget | undefined;
}) {
  const { client } = useScope();
  const ref = typeof target === "string" ? target : target.ref;
  const query = useQuery({
    queryKey: keys.of(client?.id, "trail", ref),
    queryFn: ({ signal }) => api.get("/clients/:id/trail", [client?.id], { ref }, signal),
    enabled: typeof target === "string" && client !== undefined,
  });
  const step = typeof target === "string" ? query.data : target;
  const place = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (last && depth > 0 && step) place.current?.scrollIntoView({ block: "start", behavior: "smooth" });
  }, [last, depth, step]);
  return (
    <li ref={place} className="relative border-l border-base-content/60 pb-4 pl-4 last:border-transparent">
      <span
        aria-hidden
        className={clsx(
          "absolute top-1 -left-[5px] h-[9px] w-[9px] rounded-full border border-base-content",
          last ? "border-primary bg-primary" : "bg-base-100",
        )}
      />
      {query.isError && <p className="text-error">{query.error.message}</p>}
      {!step && !query.isError && <p className="quiet">Looking it up …</p>}
      {step && <StepBody step={step} depth={depth} next={next} />}
    </li>
  );
}

function StepBody({ step, depth, next }: { step: TrailStep; depth: number; next: TrailTarget | undefined }) {
  const trail = useTrail();
  const { path, minorDigits } = useScope();
  const nextRef = typeof next === "string" ? next : next?.ref;
  const shownParts = nextRef === undefined ? step.parts : aroundChosen(step.parts, nextRef);
  const hidden = (step.total ?? step.parts.length) - shownParts.length;
  return (
    <>
      <div className="flex items-baseline justify-between gap-3">
        <strong className="font-semibold">{step.title}</strong>
        {step.amount !== null && (
          <strong className="num">{shownAmount(step.amount, step.digits, minorDigits, false)}</strong>
        )}
      </div>
      {step.words.map((words) => (
        <p key={words} className="quiet text-[12.5px]">
          {words}
        </p>
      ))}
      {step.arithmetic.length > 0 && <pre className="arithmetic mt-1.5">{step.arithmetic.join("\n")}</pre>}
      <ul className="mt-1">
        {shownParts.map((part, index) => (
          <li key={`${part.ref} ${index}`}>
            <Part
              part={part}
              digits={minorDigits}
              on={part.ref !== null && part.ref === nextRef}
              onOpen={() => part.ref && trail.follow(depth, part.ref)}
            />
          </li>
        ))}
      </ul>
      {hidden > 0 && <p className="quiet text-[12px]">and {hidden} more</p>}
      {step.open && (
        <Link className="word-link text-[12.5px]" to={path(step.open.path)}>
          {step.open.label}
        </Link>
      )}
    </>
  );
}

/** Once a part was followed, only it and a few of the first stay in sight. */
function aroundChosen(parts: readonly TrailPart[], chosen: string): TrailPart[] {
  const first = parts.slice(0, 3);
  const part = parts.find((one) => one.ref === chosen);
  return part === undefined || first.includes(part) ? first : [...first, part];
}

function Part({
  part,
  digits,
  on,
  onOpen,
}: {
  part: TrailPart;
  digits: number;
  on: boolean;
  onOpen: () => void;
}) {
  const inside = (
    <>
      <span className="min-w-0 flex-1 text-left">
        <span className="block truncate">{part.label}</span>
        {part.detail !== "" && <span className="quiet block truncate text-[11.5px]">{part.detail}</span>}
      </span>
      {part.amount !== null && (
        <span className={clsx("num", part.ref && "border-b border-dotted border-secondary")}>
          {displayAmount(part.amount, digits)}
        </span>
      )}
    </>
  );
  const row = clsx(
    "flex w-full items-center gap-3 border-b border-base-300 px-1 py-1 text-[13px]",
    on && "bg-accent",
  );
  if (part.ref === null) return <div className={row}>{inside}</div>;
  return (
    <button type="button" className={clsx(row, "cursor-pointer hover:bg-base-200")} onClick={onOpen}>
      {inside}
    </button>
  );
}
