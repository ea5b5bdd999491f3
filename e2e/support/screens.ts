import { readFileSync } from "node:fs";
import { join } from "node:path";

interface Screen {
  path: string;
  of: "practice" | "client";
  /** Under which name the palette finds it. */
  find?: string;
}

/** Every screen the application has, as the build tells it. */
export function screens(): Screen[] {
  return JSON.parse(readFileSync(join(process.cwd(), "web/dist/screens.json"), "utf8")) as Screen[];
}
