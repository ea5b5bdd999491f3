import { ApiError } from "./client.ts";

/** What is in a JSON file, or an error that says what kind of file was expected. */
export async function readJson(file: File, code: string, what: string): Promise<unknown> {
  try {
    return JSON.parse(await file.text());
  } catch {
    throw new ApiError({
      code,
      message: `This file is no ${what}: it is not JSON. Choose the file that was exported.`,
    });
  }
}
