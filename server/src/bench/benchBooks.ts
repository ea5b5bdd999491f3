import type { Work, Writing } from "../base/work.ts";
import { createClient } from "../books/createClient.ts";
import { Practice } from "../practice/practice.ts";

/** The books of one British client in a practice of their own. */
export interface BenchBooks {
  work: Work;
  clientId: number;
  end: () => Promise<void>;
}

/** Makes a practice with one client and fills its books. */
export async function benchBooks(
  dataDir: string,
  name: string,
  fill: (work: Writing, clientId: number) => Promise<void> = () => Promise.resolve(),
): Promise<BenchBooks> {
  const practice = await Practice.open(dataDir, "Bench");
  const clientId = await benchClient(practice, name, fill);
  const { work, letGo } = await practice.hold(clientId);
  const end = async () => {
    letGo();
    await practice.close();
  };
  return { work, clientId, end };
}

/** Makes a British client in a practice and fills its books. */
export async function benchClient(
  practice: Practice,
  name: string,
  fill: (work: Writing, clientId: number) => Promise<void>,
  registered = "2021-01-01",
): Promise<number> {
  const { client } = await practice.make(await practice.begin(), {
    name,
    fill: async (work, id) => {
      await createClient(work, id, {
        name,
        country: "GB",
        registration: { pack: "gb", from: registered, to: null, frequency: "quarterly", basis: "accrual" },
      });
      await fill(work, id);
    },
  });
  return client;
}
