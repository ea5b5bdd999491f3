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

/** Something that is refused: what it is, in words, with which code and at which field, and how it is asked for. */
export type RefusedCase = [
  what: string,
  code: ErrorCode,
  field: string | undefined,
  ask: () => Promise<Answer<unknown>>,
];

/** Asks, expects the refusal, and that what `state` tells is as it was. */
export async function refusedWithoutTrace(
  [, code, field, ask]: RefusedCase,
  state: () => Promise<unknown>,
): Promise<void> {
  const before = await state();
  expectRefusal(await ask(), code, field);
  expect(await state()).toEqual(before);
}
