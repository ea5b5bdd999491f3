import type { FastifyInstance } from "fastify";
import type { Practice } from "../practice/practice.ts";
import { authoritySimulator } from "./authority.ts";
import { authorityStore } from "./authorityStore.ts";
import { bankSimulator } from "./bank.ts";
import { numberRegister } from "./numberRegister.ts";
import { payoutLines, terminalSimulator } from "./terminal.ts";

/** The simulators that ship with the server: of an authority only where no other one is named. */
export async function simulate(
  app: FastifyInstance,
  practice: Practice,
  authorityUrl: string,
): Promise<void> {
  const { db } = practice;
  const packs = async () => (await practice.begin()).packs;
  const today = () => new Date().toISOString().slice(0, 10);
  if (authorityUrl === "")
    await app.register(
      (scope) => authoritySimulator(scope, { store: authorityStore(practice, today), today }),
      {
        prefix: "/simulators/authority",
      },
    );
  await app.register(
    (scope) => bankSimulator(scope, { db, today, payouts: (number, to) => payoutLines(db, number, to) }),
    {
      prefix: "/simulators/bank",
    },
  );
  await app.register((scope) => terminalSimulator(scope, { db, now: () => new Date().toISOString() }), {
    prefix: "/simulators/terminal",
  });
  await app.register((scope) => numberRegister(scope, { packs }), { prefix: "/simulators/number-register" });
}
