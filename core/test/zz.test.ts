import { test } from "vitest";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import { formOn } from "@fiscalon/core/returns/formOn";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import { figuresOfReturn } from "@fiscalon/core/returns/returnFigures";
import { differenceOf } from "@fiscalon/core/returns/settlementPostings";
import { roundingAllowed } from "@fiscalon/core/returns/roundingAllowed";
import { PACKS } from "./support/packs.ts";
import { groupsOf, setupOf } from "./support/books.ts";
test("x", () => {
  for (const pack of PACKS.all) {
    const setup = setupOf(pack.id);
    const own = setup.registrations[0]!;
    const seen = new Set<string>();
    for (const code of pack.codes.flatMap(expandCode)) for (const region of [null, ...(pack.regions ?? []).map(r=>r.code)]) for (const side of (code.direction==="both"?["sale","purchase"]:[code.direction]) as ("sale"|"purchase")[]) for (const credit of [false,true]) {
      let effect;
      try { effect = documentEffect({kind: usualKind(side, credit), date:"2026-05-11", prices:"exclusive", site:{country:pack.country, region}, lines:[{code:code.code, amount:"1234.56", quantity:"2", attributes:Object.fromEntries((code.inputs??[]).map(n=>[n,"7.50"]))}]} as never, setup);} catch { continue; }
      const groups = groupsOf(effect);
      if (groups.length===0) continue;
      const form = formOn(pack, "2026-06-30", own);
      const boxes = evaluateReturn(form, groups, [], {digits:setup.digits,on:"2026-06-30",schedules:setup.schedules});
      const f = figuresOfReturn(form, boxes, setup.digits);
      const facts = effect.facts.filter(x=>x.registration!==null);
      const totals = [{levy:"", output: facts.reduce((s,x)=>s+((x.direction==="sale"||x.charged==="self-assessed")?x.tax:0),0), input: facts.reduce((s,x)=>s+x.recoverable,0)}];
      const d = differenceOf(totals, {...f, adjustments:0});
      const a = roundingAllowed(form, groups.length, own.rounding);
      if (Math.abs(d)>a) { const k=`${pack.id} ${code.code} ${side} ${credit?"credit":""}`; if(!seen.has(k)){seen.add(k); console.log(k, region, "diff", d, "allowed", a, JSON.stringify(facts.map(x=>[x.levy,x.charged,x.net,x.tax,x.recoverable,x.tags])));} }
    }
  }
});
