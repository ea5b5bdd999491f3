import type { SetupProposal as Proposal } from "@fiscalon/core/supply/proposeSetup";
import { Tip } from "../../kit/Tip.tsx";

/** What will be set up, and why, as far as the answers go. */
export function SetupProposal({ proposal }: { proposal: Proposal }) {
  const { pack } = proposal;
  if (!pack) return null;
  return (
    <aside aria-label="What will be set up" className="border-l border-base-300 pl-6 text-[13px]">
      <h2 className="mb-1">What will be set up</h2>
      <p className="quiet">
        {pack.codes.length} codes, {proposal.accounts} accounts and {pack.rules.length} supply rules of{" "}
        {pack.name}; all can be changed afterwards.
      </p>
      <h3 className="mt-4 mb-1 font-semibold">Codes for what this business does</h3>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Supplies</th>
            <th>Sold with</th>
            <th>Bought with</th>
          </tr>
        </thead>
        <tbody>
          {proposal.classes.map(({ id, name, sale, purchase, why }) => (
            <tr key={id}>
              <td>
                {name}
                <span className="quiet block text-[12px]">{why}</span>
              </td>
              {[sale, purchase].map((code, index) => (
                <td key={index}>
                  {code === "" ? (
                    <span className="quiet">–</span>
                  ) : (
                    <Tip
                      className="code-chip"
                      words={pack.codes.find((one) => one.code === code)?.name ?? code}
                    >
                      {code}
                    </Tip>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {proposal.abroad.length > 0 && (
        <>
          <h3 className="mt-4 mb-1 font-semibold">Sold over the border</h3>
          <ul className="grid gap-1.5">
            {proposal.abroad.map(({ id, code, words }) => (
              <li key={id}>
                <span className="code-chip mr-1.5">{code}</span>
                {words}
              </li>
            ))}
          </ul>
        </>
      )}
      {proposal.notes.length > 0 && (
        <>
          <h3 className="mt-4 mb-1 font-semibold">To know</h3>
          <ul className="grid gap-1.5">
            {proposal.notes.slice(0, 5).map(({ text, source }) => (
              <li key={text}>
                {text} <span className="quiet text-[12px]">{source}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </aside>
  );
}
