import { lazy, Suspense } from "react";
import type { ComponentType } from "react";

/** A part that is fetched when it is first shown, as dialogs are: a page does not wait for what few open. */
export function onDemand<Props extends object>(load: () => Promise<ComponentType<Props>>) {
  const Part = lazy(async () => ({ default: await load() })) as unknown as ComponentType<Props>;
  return function OnDemand(props: Props) {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}
