import type { ReturnForm } from "../model/returnForm.ts";

/** The box that shows what a return comes to: another one where it comes back, if the form has one for that. */
export function shownBox({ net: { shown, repaid } }: Pick<ReturnForm, "net">, net: number): string {
  return net < 0 ? (repaid ?? shown) : shown;
}
