import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";

/** Documents kept to be used again. */
export function useTemplates() {
  const { client } = useScope();
  return useQuery({
    queryKey: keys.of(client?.id, "templates"),
    queryFn: ({ signal }) => api.get("/clients/:id/templates", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
}
