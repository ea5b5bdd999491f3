import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { ReturnBody } from "@fiscalon/core/formats/authority/returnBody";

/** Longer than the gateway usually takes, shorter than patience. */
const TIMEOUT_MS = 6000;

export interface Receipt {
  receiptId: string;
  processingDate: string;
  formBundleNumber: string;
  [field: string]: unknown;
}

/** What receipts say where no authority was reached. */
export const SIMULATED = "by the simulator that ships with Fiscalon; no authority has it";

/** What came of sending a return: a receipt, a refusal, or silence after which nobody knows. */
export type Outcome =
  | { kind: "accepted"; receipt: Receipt }
  | { kind: "refused"; code: string; message: string }
  | { kind: "unknown"; message: string };

/** The authority's gateway over HTTP (VAT (MTD) API 1.0). */
export class Gateway {
  readonly #base: string;
  /** Whether the simulator that ships with the server answers. */
  readonly simulated: boolean;

  constructor(base: string, simulated: boolean) {
    this.#base = base;
    this.simulated = simulated;
  }

  /** The key of the open obligation for a period, which only the authority can tell. */
  async periodKey(vrn: string, from: string, to: string): Promise<string> {
    const response = await this.#ask("GET", `/organisations/vat/${vrn}/obligations?from=${from}&to=${to}`);
    if (response === undefined) throw unreachable();
    const body = response.body as { obligations?: { end: string; periodKey: string }[] };
    if (response.status !== 200) throw refused(response.body);
    const obligation = body.obligations?.find((one) => one.end === to);
    if (obligation) return obligation.periodKey;
    throw new FiscalError(
      "authority/no-obligation",
      `The authority expects no return for a period ending ${displayDate(to)}. Check the rhythm of the registration.`,
    );
  }

  async submit(vrn: string, body: ReturnBody): Promise<Outcome> {
    const response = await this.#ask("POST", `/organisations/vat/${vrn}/returns`, body);
    if (response === undefined || response.status >= 500) {
      return { kind: "unknown", message: "The authority did not answer." };
    }
    if (response.status === 201) {
      const receiptId = response.headers.get("receipt-id") ?? "";
      const receipt = { receiptId, ...(response.body as object), ...this.#inWords() } as Receipt;
      return { kind: "accepted", receipt };
    }
    return { kind: "refused", ...refusalOf(response.body) };
  }

  /** The return the authority holds for a period; null where it says that it holds none, undefined where it says nothing. */
  async held(vrn: string, periodKey: string): Promise<Record<string, unknown> | null | undefined> {
    const response = await this.#ask(
      "GET",
      `/organisations/vat/${vrn}/returns/${encodeURIComponent(periodKey)}`,
    );
    if (response?.status === 404) return null;
    return response?.status === 200 ? (response.body as Record<string, unknown>) : undefined;
  }

  #inWords(): { simulated?: string } {
    return this.simulated ? { simulated: SIMULATED } : {};
  }

  async #ask(method: string, path: string, body?: object) {
    try {
      const response = await fetch(this.#base + path, {
        method,
        headers: {
          Accept: "application/vnd.hmrc.1.0+json",
          Authorization: "Bearer simulated",
          "Gov-Client-Connection-Method": "WEB_APP_VIA_SERVER",
          "Gov-Vendor-Product-Name": "Fiscalon",
          "Gov-Vendor-Version": "fiscalon=0.1.0",
          ...(body ? { "Content-Type": "application/json" } : {}),
        },
        ...(body ? { body: JSON.stringify(body) } : {}),
        signal: AbortSignal.timeout(TIMEOUT_MS),
      });
      return { status: response.status, headers: response.headers, body: (await response.json()) as unknown };
    } catch {
      return undefined;
    }
  }
}

function unreachable(): FiscalError {
  return new FiscalError(
    "authority/unreachable",
    "The authority does not answer. Nothing was filed; try again in a while.",
  );
}

function refused(body: unknown): FiscalError {
  const { code, message } = refusalOf(body);
  if (code === "SERVER_ERROR") return unreachable();
  return new FiscalError("authority/refused", `The authority refused: ${message} (${code})`, undefined, {
    authority: body,
  });
}

function refusalOf(body: unknown): { code: string; message: string } {
  const answer = body as {
    code?: string;
    message?: string;
    errors?: { code: string; message: string; path?: string }[];
  };
  const [first] = answer.errors ?? [];
  const message = answer.errors
    ?.map((one) => `${one.message}${one.path ? ` (${one.path.slice(1)})` : ""}`)
    .join("; ");
  return {
    code: first?.code ?? answer.code ?? "UNKNOWN",
    message: message ?? answer.message ?? "no reason given",
  };
}
