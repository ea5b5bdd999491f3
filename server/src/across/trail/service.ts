import type { TrailScope } from "./trailScope.ts";
import { FiscalError } from "@fiscalon/core/errors";
import type { TrailStep } from "@fiscalon/contract/trail";
import { accountStep, agreementStep, entryStep } from "./ledgerSteps.ts";
import { closingStep } from "./closingStep.ts";
import { continuityStep } from "./continuityStep.ts";
import { adjustmentStep, boxStep, groupStep } from "./boxSteps.ts";
import { declaredStep } from "./declaredSteps.ts";
import { openStep, paymentStep } from "./paymentSteps.ts";
import { asideStep, schemeStep } from "./schemeSteps.ts";
import { pieceStep } from "./pieceStep.ts";
import { positionStep } from "./positionStep.ts";
import { documentStep, lineStep } from "./documentSteps.ts";

type Resolver = (scope: TrailScope, parts: string[], ref: string) => Promise<TrailStep>;

/**
 * Every kind of step, by the first part of its ref:
 * a period is named by its end, or a stretch of them as `stretchOf` reads it:
 * `box/registration/period/box`, `group/registration/period/box/code/direction/rate/measure/credit/late`,
 * `declared/registration/period/side/levies/code/direction/rate/credit/late`, `document/id`, `line/document/line`, `entry/id`, `account/code/from/to`,
 * `payment/id`, `open/document`, `piece/no`,
 * `scheme/registration/period/step`, `aside/registration/period/code/direction`,
 * `agreement/registration/period/account/row`, `continuity/registration/period/column`, `adjustment/id`,
 * `position/registration/period/figure`, `closing/registration/period/account[/separately]`.
 */
const RESOLVERS: Record<string, Resolver> = {
  box: boxStep,
  group: groupStep,
  adjustment: adjustmentStep,
  payment: paymentStep,
  open: openStep,
  document: documentStep,
  line: lineStep,
  entry: entryStep,
  declared: declaredStep,
  account: accountStep,
  agreement: agreementStep,
  closing: closingStep,
  continuity: continuityStep,
  scheme: schemeStep,
  aside: asideStep,
  piece: pieceStep,
  position: positionStep,
};

/** One step of a trail, by its ref. */
export async function trailStep(scope: TrailScope, ref: string): Promise<TrailStep> {
  const [kind = "", ...parts] = ref.split("/").map(decodeURIComponent);
  const resolve = RESOLVERS[kind];
  if (!resolve) throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  return resolve(scope, parts, ref);
}
