import { useMutation } from "@tanstack/react-query";
import { api, withQuery } from "../api/client.ts";

interface Answer {
  state: "registered" | "ended" | "unknown";
  name?: string;
  since?: string;
  until?: string;
  message?: string;
}

/** Asks the register of the country whether the number is really somebody's. */
export function RegisterQuestion({ country, number }: { country: string; number: string }) {
  const ask = useMutation({
    mutationFn: () => api.get<Answer>(withQuery("/number-register", { country, number })),
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

function inWords({ state, name, since, until, message }: Answer): string {
  if (state === "registered") return `✓ ${name}, registered since ${since}`;
  if (state === "ended") return `The registration of ${name} ended on ${until}.`;
  return message ?? "The register does not know the number.";
}
