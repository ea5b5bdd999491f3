import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { MethodView } from "@fiscalon/contract/compareMethods";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { SelectField } from "../../kit/Field.tsx";
import { showPeriod } from "../../kit/format.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { Sheet } from "../../kit/Sheet.tsx";

const BarChart = lazy(() => import("../../kit/BarChart.tsx"));
const COLOURS = ["primary", "secondary", "accent"];

/** What the last twelve months would have come to by each method open to the registration. It writes nothing. */
export function MethodsPage() {
  const { client, registration, path } = useScope();
  const navigate = useNavigate();
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const [sales, setSales] = useState(0);
  const [costs, setCosts] = useState(0);
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "methods", registration?.id, answers),
    queryFn: ({ signal }) =>
      api.ask("/clients/:id/registrations/:rid/methods", [client?.id, registration?.id], { answers }, signal),
    enabled: registration !== undefined,
    placeholderData: keepPreviousData,
  });
  if (!registration || (data && data.methods.length < 2)) {
    return (
      <Sheet title="Methods">
        <p className="quiet">
          {registration
            ? "The law here offers no other method that is worked out, so there is nothing to compare."
            : "Methods are compared once there is a registration."}
        </p>
      </Sheet>
    );
  }
  if (!data)
    return (
      <Sheet title="Methods">
        <Waiting what="a year by every method" />
      </Sheet>
    );
  const { methods, periods, digits } = data;
  // In whole percent, so that a minor unit is rounded once.
  const net = ({ output, input }: MethodView, at: number) =>
    Math.round(((output[at] ?? NONE) * (100 + sales) - (input[at] ?? NONE) * (100 + costs)) / 100);
  const total = (method: MethodView) => periods.reduce((sum, _, at) => sum + net(method, at), 0);
  const partOf = (method: MethodView, side: "output" | "input") =>
    Math.round(
      (method[side].reduce((sum, amount) => sum + amount, 0) * (100 + (side === "output" ? sales : costs))) /
        100,
    );
  const [usual] = methods;
  const now = methods.find((method) => method.now) ?? usual;
  return (
    <Sheet
      title="Methods"
      lead="What the last twelve months would have come to, from the books as they are. Nothing is changed here."
    >
      <div className="mb-4 flex flex-wrap items-end gap-6">
        {askedOf(methods).map(({ id, name, chosen, values }) => (
          <SelectField
            key={id}
            className="w-[280px]"
            label={name}
            value={chosen}
            onChange={({ target }) => setAnswers({ ...answers, [id]: target.value })}
          >
            {values.map(({ value, name: answer }) => (
              <option key={value} value={value}>
                {answer}
              </option>
            ))}
          </SelectField>
        ))}
        <Slider label="Sales" value={sales} onChange={setSales} />
        <Slider label="Costs" value={costs} onChange={setCosts} />
      </div>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Period</th>
            {methods.map(({ id, name, now: inUse }) => (
              <th key={id} className="num">
                {name}
                {inUse && ", in use"}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {periods.map(({ from, to }, at) => (
            <tr key={to}>
              <td>{showPeriod(from, to)}</td>
              {methods.map((method) => (
                <td key={method.id} className="num">
                  <Figure
                    amount={net(method, at)}
                    digits={digits}
                    of={stepOf(method, at)}
                    label={`${method.name}, ${showPeriod(from, to)}`}
                  />
                </td>
              ))}
            </tr>
          ))}
          <tr className="font-semibold">
            <td>Owed in all</td>
            {methods.map((method) => (
              <td key={method.id} className="num">
                <Figure
                  amount={total(method)}
                  digits={digits}
                  of={stepOf(method)}
                  label={`${method.name}, in all`}
                />
              </td>
            ))}
          </tr>
          {(["output", "input"] as const).map((side) => (
            <tr key={side} className="quiet">
              <td>{side === "output" ? "of that declared" : "less what is deducted"}</td>
              {methods.map((method) => (
                <td key={method.id} className="num">
                  <Figure
                    amount={partOf(method, side)}
                    digits={digits}
                    of={stepOf(method)}
                    label={`${method.name}, ${side === "output" ? "declared" : "deducted"}`}
                  />
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <td>Against what is in use</td>
            {methods.map((method) => (
              <td key={method.id} className="num">
                {now && method !== now ? (
                  <Figure
                    amount={total(method) - total(now)}
                    digits={digits}
                    of={{
                      ...stepOf(method),
                      title: `${method.name}, against what is in use`,
                      amount: total(method) - total(now),
                      arithmetic: [
                        `${displayAmount(total(method), digits)} − ${displayAmount(total(now), digits)} = ${displayAmount(total(method) - total(now), digits)}`,
                      ],
                    }}
                    label={`${method.name}, against what is in use`}
                  />
                ) : (
                  "–"
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {methods.map(({ id, bar }) => bar !== null && <Bar key={id} words={bar} />)}
      {methods.map(
        (method) => method.causes.length > 0 && <Causes key={method.id} method={method} digits={digits} />,
      )}
      <div className="mt-6">
        <Suspense fallback={null}>
          <BarChart
            title="Owed by method"
            categories={periods.map(({ from, to }) => showPeriod(from, to))}
            series={methods.map((method, index) => ({
              name: method.name,
              colour: COLOURS[index % COLOURS.length] ?? "primary",
              values: periods.map((_, at) => net(method, at)),
            }))}
            digits={digits}
            onOpen={(index) => void navigate(path(`return/${periods[index]?.to}`))}
            table={<p className="quiet">The table stands above.</p>}
          />
        </Suspense>
      </div>
      <p className="mt-4">
        Another method is joined from the first day of a period, in{" "}
        <Link className="word-link" to={path("setup/places")}>
          Places &amp; registrations
        </Link>
        .
      </p>
    </Sheet>
  );

  function stepOf(method: MethodView, at?: number) {
    const places = at === undefined ? periods.map((_, index) => index) : [at];
    const amount = places.reduce((sum, index) => sum + net(method, index), 0);
    const sum = (of: readonly number[]) => places.reduce((all, index) => all + (of[index] ?? NONE), 0);
    const moved = (percent: number) => (percent === 0 ? "" : ` × ${100 + percent} %`);
    return {
      ref: `methods/${method.id}/${at ?? "all"}`,
      title: method.name,
      amount,
      digits,
      words: [
        "Worked out from the documents of the period by this method, as its return would be.",
        ...(sales !== 0 || costs !== 0
          ? ["Sales and costs are moved as the sliders say; tests of the scheme are not made again."]
          : []),
      ],
      parts: [],
      arithmetic: [
        `declared ${displayAmount(sum(method.output), digits)}${moved(sales)}`,
        `deducted ${displayAmount(sum(method.input), digits)}${moved(costs)}`,
      ],
    };
  }
}

const NONE = 0;

/** What methods ask, each question once. */
function askedOf(methods: readonly MethodView[]): MethodView["settings"] {
  const asked = methods.flatMap(({ settings }) => settings).filter(({ values }) => values.length > 0);
  return asked.filter(({ id }, index) => asked.findIndex((one) => one.id === id) === index);
}

/** What the difference to output tax less input tax is made of. */
function Causes({ method: { name, causes }, digits }: { method: MethodView; digits: number }) {
  const sum = causes.reduce((all, { amount }) => all + amount, 0);
  return (
    <section aria-label={`Why ${name} differs`} className="mt-5 max-w-2xl">
      <h2 className="mb-1">{name}, against output tax less input tax</h2>
      <table className="sheet-table">
        <tbody>
          {causes.map(({ words, amount }) => (
            <tr key={words}>
              <td>{words}</td>
              <td className="num">
                <Figure
                  amount={amount}
                  digits={digits}
                  of={{
                    ref: `methods/${name}/${words}`,
                    title: `${name}: ${words}`,
                    amount,
                    digits,
                    words: [
                      "Of all periods compared. Where the method is in use, the workpaper under each return opens it down to the documents.",
                    ],
                    parts: [],
                    arithmetic: causes.map((one) => `${one.words}: ${displayAmount(one.amount, digits)}`),
                  }}
                  label={words}
                />
              </td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="font-semibold">
            <td>{sum > 0 ? "More owed" : "Less owed"}</td>
            <td className="num">{displayAmount(Math.abs(sum), digits)}</td>
          </tr>
        </tfoot>
      </table>
    </section>
  );
}

function Bar({ words }: { words: string }) {
  return (
    <p className="note-row mt-3">
      <span aria-hidden className="text-error">
        ▲
      </span>{" "}
      {words}
    </p>
  );
}

function Slider({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <label className="w-[170px] text-[13px]">
      <span className="quiet">
        {label}: {value > 0 ? "+" : ""}
        {value} %
      </span>
      <input
        type="range"
        className="range range-xs mt-1"
        min={-50}
        max={50}
        step={5}
        value={value}
        onChange={({ target }) => onChange(Number(target.value))}
      />
    </label>
  );
}
