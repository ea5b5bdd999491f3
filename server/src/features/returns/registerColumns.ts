import type { RegisterView } from "@fiscalon/contract/registers";

/** What a list that goes with a return holds, without its head. */
export type RegisterTable = Pick<RegisterView, "columns" | "rows" | "opens" | "total" | "missing">;

export const plain = (name: string) => ({ name, amount: false });
export const money = (name: string) => ({ name, amount: true });
