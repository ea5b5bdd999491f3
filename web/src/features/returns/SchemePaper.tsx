import { useQuery } from "@tanstack/react-query";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate } from "../../kit/format.ts";
import type { useReturn } from "./useReturn.ts";

const SCHEME = "/clients/:id/registrations/:rid/returns/:period/scheme";

/** The workpaper of the scheme in force: its steps, each figure opening, and what it keeps off the return. */
export function SchemePaper({ parts }: Pick<ReturnType<typeof useReturn>, "parts">) {
  const { client, registration } = useScope();
  const hasSchemes = registration !== undefined && registration.schemes.length > 0;
  const { data: paper } = useQuery({
    queryKey: keys.of(client?.id, "return", "scheme", ...parts),
    queryFn: () => api.get(SCHEME, parts),
    enabled: hasSchemes,
  });
  if (!hasSchemes || !paper) return null;
  const { name, note, source, settings, from, steps, setAside, gain, digits } = paper;
  const of = (kind: string, ...rest: string[]) =>
    [kind, registration.id, parts[2], ...rest].map((part) => encodeURIComponent(String(part))).join("/");
  return (
    <section aria-label={`Workpaper: ${name}`} className="mt-8">
      <h2 className="mb-1">Workpaper: {name}</h2>
      <p className="quiet mb-2 text-[13px]">
        {settings.map((one) => `${one.name}: ${one.value}`).join("; ")}. In force since {showDate(from)}.{" "}
        {note} ({source}){" "}
        <a className="word-link ml-2" href={`/api${filled(SCHEME, parts)}.csv`} download>
          As CSV
        </a>
      </p>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Box</th>
            <th>Step</th>
            <th>Worked out</th>
            <th className="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          {steps.map(({ id, box, words, arithmetic, amount }) => (
            <tr key={id}>
              <td className="font-semibold text-secondary">{box}</td>
              <td>{words}</td>
              <td className="quiet">{arithmetic}</td>
              <td className="num">
                <Figure amount={amount} digits={digits} of={of("scheme", id)} label={words} />
              </td>
            </tr>
          ))}
          {setAside.map((one) => (
            <Aside key={`${one.code} ${one.direction}`} one={one} digits={digits} of={of} />
          ))}
          <tr className="font-semibold">
            <td />
            <td>{gain < 0 ? "Less owed than without the scheme" : "More owed than without the scheme"}</td>
            <td className="quiet font-normal">
              {gain < 0 ? "to the account for gains of schemes" : "to the account for costs of schemes"}
            </td>
            <td className="num">
              <Figure
                amount={Math.abs(gain)}
                digits={digits}
                of={of("scheme", "turnover")}
                label="Difference"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}

function Aside({
  one: { code, direction, count, net, tax, recoverable },
  digits,
  of,
}: {
  one: SchemeView["setAside"][number];
  digits: number;
  of: (kind: string, ...rest: string[]) => string;
}) {
  const sold = direction === "sale";
  const amount = sold ? tax : recoverable;
  if (amount === 0 && net === 0) return null;
  return (
    <tr>
      <td />
      <td>
        Set aside: {code}, {sold ? "tax charged and not declared" : "tax not deducted"}
      </td>
      <td className="quiet">{plural(count, "line")}</td>
      <td className="num">
        <Figure
          amount={amount}
          digits={digits}
          dash
          of={of("aside", code, direction)}
          label={`Set aside, ${code}`}
        />
      </td>
    </tr>
  );
}
