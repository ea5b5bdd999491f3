export type Caller = ReturnType<typeof caller>;

/** Calls the server's API at an address; anything but success is an error with what the server said. */
export function caller(base: string) {
  return async function call<T = unknown>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await fetch(base + path, {
      method,
      ...(body === undefined
        ? {}
        : { body: JSON.stringify(body), headers: { "content-type": "application/json" } }),
    });
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path}: ${text}`);
    return (text === "" ? undefined : JSON.parse(text)) as T;
  };
}
