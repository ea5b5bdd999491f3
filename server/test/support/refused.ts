import { expect } from "vitest";
import { ERRORS } from "@fiscalon/contract/errors";
import type { ErrorCode } from "@fiscalon/contract/errors";
import type { Answer } from "./testServer.ts";

/** A refusal as the contract has it: the code's own status, a sentence that says what to do, the path of the field. */
export function expectRefusal(answer: Answer<unknown>, code: ErrorCode, field?: string): void {
  const { error } = answer.body as { error?: { code: string; message: string; field?: string } };
  expect([error?.code, error?.field]).toEqual([code, field]);
  expect(answer.status).toBe(ERRORS[code].status);
  expect(error?.message).toMatch(/^\S.{14,}[.?:…”"]?$/su);
  expect(error?.message).not.toMatch(/undefined|NaN|\[object|null/);
}
