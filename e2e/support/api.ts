import type { RunningServer } from "./server.ts";

/** Asks the server's API, as another program would; a refusal ends the test. */
export async function send(
  { address }: RunningServer,
  method: string,
  path: string,
  body: object,
): Promise<{ id: number }> {
  const response = await fetch(address + path, {
    method,
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return (response.status === 204 ? {} : await response.json()) as { id: number };
}

/** The date so many days back. */
export const day = (back: number) => new Date(Date.now() - back * 86_400_000).toISOString().slice(0, 10);
