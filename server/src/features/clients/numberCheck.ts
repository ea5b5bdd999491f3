import { FiscalError } from "@fiscalon/core/errors";
import type { RegisterAnswer } from "@fiscalon/contract/views";

const PATIENCE_MS = 5_000;

/** Asks the register of a country about a number. */
export async function askRegister(address: string, country: string, number: string): Promise<RegisterAnswer> {
  const query = new URLSearchParams({ country, number });
  let response: Response;
  try {
    response = await fetch(`${address}/?${query.toString()}`, { signal: AbortSignal.timeout(PATIENCE_MS) });
  } catch {
    throw new FiscalError(
      "register/unreachable",
      "The register of numbers does not answer. Try again later.",
    );
  }
  const body = (await response.json()) as RegisterAnswer & { message?: string };
  if (response.ok) return body;
  throw new FiscalError(
    response.status === 400 ? "register/bad-number" : "register/busy",
    body.message ?? "The register of numbers refused the question.",
    "number",
  );
}
