import type { TerminalMapping } from "@fiscalon/core/incoming/terminalDay";

export interface Terminal {
  id: number;
  merchant: string;
  name: string;
  token: string;
  zone: string;
  cutOff: string;
  start: string;
  mapping: TerminalMapping;
  cursor: string;
  payoutCursor: string;
}
