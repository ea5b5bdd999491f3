import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ReturnView, SeenBox } from "@fiscalon/contract/returns";
import { usePeriodReturn } from "../../app/usePeriodReturn.ts";
import { useScope } from "../../app/scope.ts";

/** The API's path of a return, and what its parameters are now. */
export const RETURN = "/clients/:id/registrations/:rid/returns/:period";
export type ReturnParts = [
  client: number | undefined,
  registration: number | undefined,
  end: string | undefined,
];

/** The chosen period's return; `act` does something to it and has everything asked anew. */
export function useReturn() {
  const { client, registration, period } = useScope();
  const queries = useQueryClient();
  const query = usePeriodReturn();
  const act = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  const parts: ReturnParts = [client?.id, registration?.id, period?.to];
  return { view: query.data, error: query.error, act, parts };
}

/** The figures that whoever seals or files a return looks at. */
export function seenBoxes({ boxes }: ReturnView): SeenBox[] {
  return boxes.map(({ id, amount }) => ({ box: id, amount }));
}
