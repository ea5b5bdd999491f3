import { expect, test } from "vitest";
import { noteSeen, seenOf, sharedAnswer } from "../src/api/seen.ts";

const read = <T>(answer: T, entry: number): T => {
  noteSeen(answer, entry);
  return answer;
};

test("what is asked anew and is the same stays the same object, seen up to the newer answer", () => {
  const old = read(
    {
      contacts: [
        { id: 1, name: "Reed" },
        { id: 2, name: "Oxbow" },
      ],
    },
    5,
  );
  const fresh = read(
    {
      contacts: [
        { id: 1, name: "Reed" },
        { id: 2, name: "Oxbow Ltd" },
      ],
    },
    9,
  );
  const shared = sharedAnswer(old, fresh) as typeof old;
  expect(shared.contacts[0]).toBe(old.contacts[0]);
  expect(shared.contacts.map(seenOf)).toEqual([9, 9]);
  expect(seenOf(old.contacts[1])).toBe(5);
});

test("an answer that was overtaken on its way makes nothing older", () => {
  const newer = read({ name: "Reed" }, 9);
  expect(seenOf(sharedAnswer(newer, read({ name: "Reed" }, 7)) as object)).toBe(9);
});
