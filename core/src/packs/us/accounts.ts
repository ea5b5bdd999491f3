import { chart } from "../shared/chart.ts";
import { BODIES, STATES } from "./jurisdictions.ts";

const bodies = BODIES.map(({ id, name, state }, index) => ({
  levy: `SALES:${id}`,
  name: `sales tax, ${name}`,
  at: 2200 + index * 2,
  authority: state,
  input: false,
  only: "running" as const,
}));
const states = STATES.map((state, index) => ({
  levy: BODIES.filter((body) => body.state === state)
    .map(({ id }) => `SALES:${id}`)
    .join("/"),
  name: `Sales tax ${state}`,
  at: 2300 + index * 10,
  authority: state,
  input: false,
  allowance: true,
  only: "shared" as const,
}));

export const accounts = chart({ outOfScope: "PR", export: "XI" }, [...bodies, ...states]);
