import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { capitalItemsOf } from "@fiscalon/core/model/capitalItem";
import { useQuery } from "@tanstack/react-query";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { SchemeCourse } from "./SchemeCourse.tsx";
import type { useReturn } from "./useReturn.ts";

const SCHEMES = "/clients/:id/registrations/:rid/returns/:period/schemes";

/** The workpapers of the schemes on the return: their steps, each figure opening, and what they keep off it. */
export function SchemePapers({ parts }: Pick<ReturnType<typeof useReturn>, "parts">) {
  const { client, registration } = useScope();
  const packs = usePacks();
  const hasSchemes =
    registration !== undefined &&
    (registration.schemes.length > 0 ||
      capitalItemsOf(packs.byId(registration.pack), registration.levies) !== undefined);
  const { data: papers } = useQuery({
    queryKey: keys.of(client?.id, "return", "schemes", ...parts),
    queryFn: ({ signal }) => api.get(SCHEMES, parts, {}, signal),
    enabled: hasSchemes,
  });
  if (!hasSchemes || !papers) return null;
  return papers.map((paper) => (
    <SchemePaper
      key={paper.id}
      paper={paper}
      path={[registration.id, parts[2]]}
      file={`${filled(SCHEMES, parts)}/${paper.id}`}
    />
  ));
}

function SchemePaper({
  paper,
  path,
  file,
}: {
  paper: SchemeView;
  /** Registration and period, as trails have them. */
  path: readonly unknown[];
  file: string;
}) {
  const { name, note, source, settings, from, steps, setAside, owed, gain, digits } = paper;
  const of = (kind: string, ...rest: string[]) =>
    [kind, ...path, ...rest].map((part) => encodeURIComponent(String(part))).join("/");
  const money = (amount: number) => displayAmount(amount, digits);
  const charged = setAside.reduce((sum, one) => sum + (one.direction === "sale" ? one.tax : 0), 0);
  const lost = setAside.reduce((sum, one) => sum + one.recoverable, 0);
  const difference = gain < 0 ? "Less owed than without the scheme" : "More owed than without the scheme";
  return (
    <section aria-label={`Workpaper: ${name}`} className="mt-8">
      <h2 className="mb-1">Workpaper: {name}</h2>
      <p className="quiet mb-2 text-[13px]">
        {settings.map((one) => `${one.name}: ${one.value}`).join("; ")}. In force since {displayDate(from)}.{" "}
        {note} ({source}){" "}
        {(["csv", "xlsx", "pdf"] as const).map((format) => (
          <a key={format} className="word-link ml-2" href={`/api${file}?format=${format}`} download>
            {format.toUpperCase()}
          </a>
        ))}
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
            <td>{difference}</td>
            <td className="quiet font-normal">
              {setAside.length === 0 ? money(owed) : `${money(owed)} − (${money(charged)} − ${money(lost)})`},
              to the account for {gain < 0 ? "gains" : "costs"} of schemes
            </td>
            <td className="num">
              <Figure
                amount={Math.abs(gain)}
                digits={digits}
                of={{
                  ref: of("scheme", "difference"),
                  title: `${name}: ${difference.toLowerCase()}`,
                  amount: Math.abs(gain),
                  digits,
                  words: [
                    "What the scheme makes owed, less the tax that was charged and is set aside, and with what is not deducted for it.",
                  ],
                  parts: setAside.map((one) => ({
                    ref: of("aside", one.code, one.direction),
                    label: one.code,
                    detail: one.direction === "sale" ? "charged" : "not deducted",
                    amount: one.direction === "sale" ? one.tax : one.recoverable,
                  })),
                  arithmetic:
                    setAside.length === 0
                      ? []
                      : [`${money(owed)} − (${money(charged)} − ${money(lost)}) = ${money(gain)}`],
                }}
                label={difference}
              />
            </td>
          </tr>
        </tbody>
      </table>
      <SchemeCourse paper={paper} />
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
