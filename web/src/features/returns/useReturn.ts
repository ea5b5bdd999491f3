import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ReturnView, SeenBox } from "@fiscalon/contract/returns";
import { useCheckedReturn, usePeriodReturn } from "../../app/usePeriodReturn.ts";
import { useScope } from "../../app/scope.ts";

/** The API's path of a return, and what its parameters are now. */
export const RETURN = "/clients/:id/registrations/:rid/returns/:period";
export type ReturnParts = [
  client: number | undefined,
  registration: number | undefined,
  end: string | undefined,
];

/**
 * The chosen period's return, and the same with its findings once it was checked; `act` does something to it and has
 * everything asked anew.
 */
export function useReturn() {
  const { client, registration, period } = useScope();
  const queries = useQueryClient();
  const form = usePeriodReturn();
  const checked = useCheckedReturn();
  const act = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  const parts: ReturnParts = [client?.id, registration?.id, period?.to];
  return { view: form.data, checked: checked.data, error: form.error ?? checked.error, act, parts };
}

/** The figures that whoever seals or files a return looks at. */
export function seenBoxes({ boxes }: ReturnView): SeenBox[] {
  return boxes.map(({ id, amount }) => ({ box: id, amount }));
}
