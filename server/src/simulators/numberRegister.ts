import type { FastifyInstance } from "fastify";
import Joi from "joi";
import type { RegisterAnswer } from "@fiscalon/contract/views";
import type { Packs } from "@fiscalon/core/model/packs";
import type { NumberCheck } from "@fiscalon/core/model/pack";

const FIRST = [
  "Alder",
  "Bramble",
  "Curlew",
  "Dunlin",
  "Elder",
  "Fennel",
  "Gannet",
  "Heron",
  "Ibis",
  "Juniper",
];
const SECOND = [
  "Trading",
  "Supplies",
  "Works",
  "Partners",
  "Holdings",
  "Stores",
  "Services",
  "Crafts",
  "Foods",
  "Tools",
];
const ANSWER_MS = 250;

/**
 * A register of tax numbers as authorities offer them: it takes a moment, knows most valid numbers under an invented
 * name, says of some that their registration has ended, and is busy now and then. What it answers follows from the
 * digits, so that the same question gets the same answer. A number whose digits end in 7 has ended, in 00 is unknown,
 * in 99 finds the register busy.
 */
export async function numberRegister(
  app: FastifyInstance,
  { packs }: { packs: () => Promise<Packs> },
): Promise<void> {
  app.get<{ Querystring: { country: string; number: string } }>(
    "/",
    {
      schema: {
        hide: true,
        querystring: Joi.object({
          country: Joi.string().uppercase().length(2).required(),
          number: Joi.string().max(60).required(),
        }),
      },
    },
    async (request, reply) => {
      await new Promise((later) => setTimeout(later, ANSWER_MS));
      const { country, number } = request.query;
      const check = checkOf(await packs(), country, number);
      if (!check.ok) return reply.status(400).send({ code: "INVALID_INPUT", message: check.message });
      if (check.number.endsWith("99")) {
        return reply
          .status(503)
          .send({ code: "MS_MAX_CONCURRENT_REQ", message: "The register is busy. Try again." });
      }
      return answerFor(check.number);
    },
  );
}

function checkOf(packs: Packs, country: string, number: string): NumberCheck {
  const pack = packs.ofCountry(country);
  if (pack) return pack.checkNumber(number);
  const union = packs.all.find((one) => one.union?.members.has(country))?.union;
  return union?.checkNumber(country, number) ?? { ok: false, message: `No register of ${country} is known.` };
}

function answerFor(number: string): RegisterAnswer {
  const digits = number.replace(/\D/g, "");
  const seed = [...number].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 100_003, 7);
  const name = `${FIRST[seed % FIRST.length]} ${SECOND[Math.floor(seed / 10) % SECOND.length]} (invented)`;
  if (digits.endsWith("00"))
    return { state: "unknown", number, message: "The number is well formed but not in the register." };
  if (digits.endsWith("7")) return { state: "ended", number, name, until: `20${18 + (seed % 7)}-06-30` };
  return { state: "registered", number, name, since: `20${10 + (seed % 14)}-0${1 + (seed % 9)}-01` };
}
