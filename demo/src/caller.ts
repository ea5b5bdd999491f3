export interface Caller {
  <T = unknown>(method: string, path: string, body?: unknown): Promise<T>;
  /** Drops a file. */
  upload: <T = unknown>(path: string, name: string, content: string) => Promise<T>;
}

/** Calls the server's API at an address; anything but success is an error with what the server said. */
export function caller(base: string): Caller {
  const send = async <T>(method: string, path: string, init: RequestInit): Promise<T> => {
    const response = await fetch(base + path, { method, ...init });
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path}: ${text}`);
    return (text === "" ? undefined : JSON.parse(text)) as T;
  };
  const call = <T = unknown>(method: string, path: string, body?: unknown) =>
    send<T>(
      method,
      path,
      body === undefined
        ? {}
        : { body: JSON.stringify(body), headers: { "content-type": "application/json" } },
    );
  const upload = <T = unknown>(path: string, name: string, content: string) => {
    const form = new FormData();
    form.append("file", new Blob([content]), name);
    return send<T>("POST", path, { body: form });
  };
  return Object.assign(call, { upload });
}
