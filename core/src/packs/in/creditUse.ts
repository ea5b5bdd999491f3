import type { BoxDefinition } from "../../model/returnForm.ts";
import { carried, computed, WHOLE_NEAREST } from "../shared/formBoxes.ts";

const PART = { part: "credit" } as const;
const STEP = { ...PART, helper: true } as const;
const RUPEES = { ...PART, rounding: WHOLE_NEAREST } as const;
const NAMES: Record<string, string> = { igst: "integrated", cgst: "central", sgst: "state", cess: "cess" };
const HEADS = ["igst", "cgst", "sgst", "cess"] as const;

/**
 * How the credit pays the tax, as boxes: integrated credit first and wholly, then central and state credit against
 * their own head and integrated tax, never against each other. Of the orders the law leaves open this one needs the
 * least cash.
 * @source CGST s.49(5), 49A, 49B; R.88A; Circ. 98/17/2019
 */
export function creditUse(): BoxDefinition[] {
  const L = (head: string) => `[6.1A.${head}.payable]`;
  const K = (head: string) => `[k.${head}]`;
  const step = (id: string, title: string, formula: string) =>
    computed(
      id,
      title,
      formula,
      id.startsWith("6.1A") || id.startsWith("6.1B") ? RUPEES : id.startsWith("6.1") ? PART : STEP,
    );
  return [
    ...HEADS.map((head) =>
      carried(`op.${head}`, `Credit brought forward, ${NAMES[head]}`, `cl.${head}`, STEP),
    ),
    ...HEADS.flatMap((head) => liability(`6.1A.${head}`, NAMES[head], outwardTax(head))),
    ...HEADS.map((head) =>
      computed(`bal.${head}`, `Credit ledger, ${NAMES[head]}`, `[op.${head}] + [4C.${head}]`, {
        ...RUPEES,
        helper: true,
        words: "Below zero where suppliers credited more than is there; what is short is carried forward.",
      }),
    ),
    ...HEADS.map((head) =>
      computed(`k.${head}`, `Credit to use, ${NAMES[head]}`, `max([bal.${head}], 0)`, STEP),
    ),
    step(
      "6.1A.igst.itc.igst",
      "Integrated tax paid from integrated credit",
      `min(${L("igst")}, ${K("igst")})`,
    ),
    step("ki", "Integrated credit left", `${K("igst")} - [6.1A.igst.itc.igst]`),
    step(
      "x1",
      "Integrated credit for central tax that central credit cannot pay",
      `min([ki], max(0, ${L("cgst")} - ${K("cgst")}))`,
    ),
    step(
      "x2",
      "Integrated credit for state tax that state credit cannot pay",
      `min([ki] - [x1], max(0, ${L("sgst")} - ${K("sgst")}))`,
    ),
    step("x3", "Integrated credit left, for central tax", `min([ki] - [x1] - [x2], ${L("cgst")} - [x1])`),
    step(
      "x4",
      "Integrated credit left, for state tax",
      `min([ki] - [x1] - [x2] - [x3], ${L("sgst")} - [x2])`,
    ),
    step("6.1A.cgst.itc.igst", "Central tax paid from integrated credit", "[x1] + [x3]"),
    step("6.1A.sgst.itc.igst", "State tax paid from integrated credit", "[x2] + [x4]"),
    step(
      "6.1A.cgst.itc.cgst",
      "Central tax paid from central credit",
      `min(${K("cgst")}, ${L("cgst")} - [6.1A.cgst.itc.igst])`,
    ),
    step(
      "6.1A.igst.itc.cgst",
      "Integrated tax paid from central credit",
      `min(${K("cgst")} - [6.1A.cgst.itc.cgst], ${L("igst")} - [6.1A.igst.itc.igst])`,
    ),
    step(
      "6.1A.sgst.itc.sgst",
      "State tax paid from state credit",
      `min(${K("sgst")}, ${L("sgst")} - [6.1A.sgst.itc.igst])`,
    ),
    step(
      "6.1A.igst.itc.sgst",
      "Integrated tax paid from state credit, once no central credit is left",
      `${K("cgst")} - [6.1A.cgst.itc.cgst] - [6.1A.igst.itc.cgst] > 0 ? 0 : min(${K("sgst")} - [6.1A.sgst.itc.sgst], ${L("igst")} - [6.1A.igst.itc.igst] - [6.1A.igst.itc.cgst])`,
    ),
    step("6.1A.cess.itc.cess", "Cess paid from cess credit", `min(${K("cess")}, ${L("cess")})`),
    step(
      "6.1A.igst.cash",
      "Integrated tax paid in cash",
      `${L("igst")} - [6.1A.igst.itc.igst] - [6.1A.igst.itc.cgst] - [6.1A.igst.itc.sgst]`,
    ),
    step(
      "6.1A.cgst.cash",
      "Central tax paid in cash",
      `${L("cgst")} - [6.1A.cgst.itc.igst] - [6.1A.cgst.itc.cgst]`,
    ),
    step(
      "6.1A.sgst.cash",
      "State tax paid in cash",
      `${L("sgst")} - [6.1A.sgst.itc.igst] - [6.1A.sgst.itc.sgst]`,
    ),
    step("6.1A.cess.cash", "Cess paid in cash", `${L("cess")} - [6.1A.cess.itc.cess]`),
    ...HEADS.flatMap((head) =>
      liability(
        `6.1B.${head}`,
        `${NAMES[head]}, in cash under reverse charge`,
        `[3.1d.${head}] + [3.1.1i.${head}]`,
      ),
    ),
    ...HEADS.map((head) =>
      step(`6.1B.${head}.cash`, `Reverse charge paid in cash, ${NAMES[head]}`, `[6.1B.${head}.payable]`),
    ),
    ...HEADS.map((head) =>
      step(`6.1.${head}.interest`, `Interest paid in cash, ${NAMES[head]}`, `[5.1.interest.${head}]`),
    ),
    ...["cgst", "sgst"].map((head) =>
      step(`6.1.${head}.fee`, `Late fee paid in cash, ${NAMES[head]}`, `[5.1.latefee.${head}]`),
    ),
    step(
      "cash",
      "Paid in cash, reverse charge included",
      HEADS.map((head) => `[6.1A.${head}.cash] + [6.1B.${head}.payable]`).join(" + "),
    ),
    step(
      "cl.igst",
      "Credit carried forward, integrated",
      `[bal.igst] - [6.1A.igst.itc.igst] - [6.1A.cgst.itc.igst] - [6.1A.sgst.itc.igst]`,
    ),
    step(
      "cl.cgst",
      "Credit carried forward, central",
      `[bal.cgst] - [6.1A.cgst.itc.cgst] - [6.1A.igst.itc.cgst]`,
    ),
    step(
      "cl.sgst",
      "Credit carried forward, state",
      `[bal.sgst] - [6.1A.sgst.itc.sgst] - [6.1A.igst.itc.sgst]`,
    ),
    step("cl.cess", "Credit carried forward, cess", `[bal.cess] - [6.1A.cess.itc.cess]`),
  ];
}

function outwardTax(head: string): string {
  const zeroRated = head === "igst" || head === "cess" ? ` + [3.1b.${head}]` : "";
  return `[3.1a.${head}]${zeroRated}`;
}

/**
 * What is payable of a head in whole rupees (s.170). Where credit notes make it negative, that is neither credit nor
 * refund: it is carried into the liability of the same head in the next period.
 */
function liability(id: string, name: string | undefined, tax: string): BoxDefinition[] {
  return [
    computed(`${id}.tax`, `Tax of the period, ${name}`, tax, RUPEES),
    carried(`${id}.negadj`, `Negative liability brought forward, ${name}`, `${id}.negout`, RUPEES),
    computed(`${id}.net`, `Net of it, ${name}`, `[${id}.tax] - [${id}.negadj]`, { ...RUPEES, helper: true }),
    computed(`${id}.payable`, `Payable, ${name}`, `max([${id}.net], 0)`, RUPEES),
    computed(`${id}.negout`, `Negative liability carried forward, ${name}`, `max(-[${id}.net], 0)`, RUPEES),
  ];
}
