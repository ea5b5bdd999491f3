import type { ReactNode } from "react";

/** A row right under a line that says or asks something about it. */
export function LineNote({ label, children }: { label: string; children: ReactNode }) {
  return (
    <tr>
      <td colSpan={12} className="!py-1">
        <div role="group" aria-label={label} className="flex flex-wrap items-center gap-3 text-[13px]">
          <span aria-hidden className="text-warning">
            ◆
          </span>
          {children}
        </div>
      </td>
    </tr>
  );
}
