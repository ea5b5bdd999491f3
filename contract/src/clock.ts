/** What the clock of the machine says at a client's place, and why it is not to be trusted. */
export interface ClockView {
  /** The moment, ISO 8601. */
  now: string;
  /** The day of it at the client's place. */
  today: string;
  zone: string;
  /** A sentence where something is wrong with it. */
  trouble: string | null;
}
