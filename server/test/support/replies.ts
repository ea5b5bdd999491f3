import { createRequire } from "node:module";
import { Ajv } from "ajv";
import type { ValidateFunction } from "ajv";

const schemas = createRequire(import.meta.url)("@fiscalon/contract/answers.json") as {
  properties: Record<string, object>;
  definitions: Record<string, object>;
};
const ajv = new Ajv({ strict: false, allowUnionTypes: true });

interface Route {
  method: string;
  pattern: RegExp;
  fixed: number;
  check: () => ValidateFunction;
}

/** The routes of the contract, those with the most fixed parts first: `/documents/void` before `/documents/:document`. */
const ROUTES: Route[] = Object.entries(schemas.properties)
  .map(([route, schema]) => {
    const [method = "", path = ""] = route.split(" ");
    let compiled: ValidateFunction | undefined;
    return {
      method,
      pattern: new RegExp(`^${path.replace(/:\w+/g, "[^/]+").replace(/\./g, "\\.")}$`),
      fixed: path.split("/").filter((part) => !part.startsWith(":")).length,
      check: () => (compiled ??= ajv.compile({ ...schema, definitions: schemas.definitions })),
    };
  })
  .sort((a, b) => b.fixed - a.fixed);

/** What of a reply is not as the contract declares it; nothing where it fits, or the contract tells no answer. */
export function notAsDeclared(method: string, path: string, body: unknown): string | undefined {
  const plain = path.replace(/\?.*$/, "");
  const route = ROUTES.find((one) => one.method === method && one.pattern.test(plain));
  const check = route?.check();
  if (!check || check(body)) return undefined;
  const first = check.errors?.[0];
  return `${method} ${plain} answers otherwise than the contract says: ${first?.instancePath} ${first?.message} ${JSON.stringify(first?.params)}`;
}
