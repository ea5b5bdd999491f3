import type { ReactNode } from "react";

/** The working sheet: title with its actions, and everything under it, scrolling by itself. */
export function Sheet({
  title,
  aside,
  actions,
  lead,
  children,
}: {
  title: ReactNode;
  aside?: ReactNode;
  actions?: ReactNode;
  lead?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="flex min-w-0 flex-1 flex-col overflow-y-auto px-6 pt-4 pb-8">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1>{title}</h1>
        {aside && <span className="quiet">{aside}</span>}
        {actions && <div className="no-print ml-auto flex items-center gap-2">{actions}</div>}
      </header>
      {lead && <div className="quiet mt-1.5">{lead}</div>}
      <div className="mt-3 flex min-h-0 flex-1 flex-col">{children}</div>
    </div>
  );
}

/** What an empty list says: what belongs here, and the one next step. */
export function EmptyState({
  title,
  children,
  action,
}: {
  title: string;
  children: ReactNode;
  action?: ReactNode;
}) {
  return (
    <div className="mx-auto mt-16 max-w-md text-center">
      <p className="text-[16px] font-semibold">{title}</p>
      <p className="quiet mt-2">{children}</p>
      {action && <div className="mt-5 flex justify-center gap-2">{action}</div>}
    </div>
  );
}
