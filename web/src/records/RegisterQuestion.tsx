import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation } from "@tanstack/react-query";
import type { RegisterAnswer } from "@fiscalon/contract/views";
import { api } from "../api/client.ts";

/** Asks the register of the country whether the number is really somebody's. */
export function RegisterQuestion({ country, number }: { country: string; number: string }) {
  const ask = useMutation({
    mutationFn: () => api.get("/number-register", [], { country, number }),
  });
  return (
    <p className="mt-1 flex flex-wrap items-baseline gap-2 text-[12.5px]" aria-live="polite">
      <button type="button" className="word-link" disabled={ask.isPending} onClick={() => ask.mutate()}>
        {ask.isPending ? "Asking …" : "Ask the register"}
      </button>
      {ask.data && <span>{inWords(ask.data)}</span>}
      {ask.error && <span className="text-error">{ask.error.message}</span>}
    </p>
  );
}

function inWords(answer: RegisterAnswer): string {
  if (answer.state === "registered") return `✓ ${answer.name}, registered since ${displayDate(answer.since)}`;
  if (answer.state === "ended")
    return `The registration of ${answer.name} ended on ${displayDate(answer.until)}.`;
  return answer.message;
}
