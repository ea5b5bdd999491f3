import { Outlet, useParams, useLocation } from "react-router";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useLongChanges } from "../api/longChanges.ts";
import { Palette } from "./Palette.tsx";
import { PeriodRibbon } from "./PeriodRibbon.tsx";
import { SidePanel } from "../kit/SidePanel.tsx";
import { TrailPanel } from "./TrailPanel.tsx";
import { TrailProvider } from "../kit/TrailProvider.tsx";
import { useTrail } from "../kit/trailContext.ts";
import { onDemand } from "../kit/onDemand.tsx";
import { PositionBar } from "./PositionBar.tsx";
import { ScopeProvider } from "./ScopeProvider.tsx";
import { useScope } from "./scope.ts";
import { SetupTabs } from "./SetupTabs.tsx";
import { Spine } from "./Spine.tsx";

const LongChange = onDemand(() => import("./LongChange.tsx").then((one) => one.LongChange));
const ShortcutList = onDemand(() => import("./ShortcutList.tsx").then((one) => one.ShortcutList));

/** The frame: spine, ribbon, sheet, trail, position bar. */
export function Shell() {
  return (
    <TrailProvider>
      <ScopeProvider>
        <Frame />
      </ScopeProvider>
    </TrailProvider>
  );
}

function Frame() {
  const { clientId, "*": rest } = useParams();
  const scope = useScope();
  const trail = useTrail();
  const [palette, setPalette] = useState(false);
  const [shortcuts, setShortcuts] = useState(false);
  useHotkeys("mod+k", () => setPalette(true), { enableOnFormTags: true, preventDefault: true });
  useHotkeys("shift+slash", () => setShortcuts(true), { useKey: false });
  useHotkeys("?", () => setShortcuts(true), { useKey: true });
  useHotkeys("[", () => scope.stepPeriod(-1), { useKey: true });
  useHotkeys("]", () => scope.stepPeriod(1), { useKey: true });
  useHotkeys("escape", () => trail.close(), { enabled: trail.chain.length > 0 && !palette && !shortcuts });
  const [longChange] = useLongChanges();
  const { pathname } = useLocation();
  const inSetup = pathname.includes("/setup/");
  return (
    <div className="flex h-full overflow-hidden">
      <a
        href="#sheet"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-base-100 focus:p-2"
      >
        To the sheet
      </a>
      <Spine onFind={() => setPalette(true)} />
      <div className="flex min-w-0 flex-1 flex-col">
        {clientId !== undefined && (inSetup ? <SetupTabs /> : <PeriodRibbon />)}
        <div className="flex min-h-0 flex-1">
          <main
            id="sheet"
            key={rest}
            data-path={pathname}
            tabIndex={-1}
            className="flex min-w-0 flex-1 overflow-hidden outline-none"
          >
            <Outlet />
          </main>
          {trail.chain.length > 0 && (
            <SidePanel name="Trail">
              <TrailPanel />
            </SidePanel>
          )}
        </div>
        {clientId !== undefined && <PositionBar />}
      </div>
      {palette && <Palette onClose={() => setPalette(false)} />}
      {longChange && <LongChange job={longChange} />}
      {shortcuts && <ShortcutList onClose={() => setShortcuts(false)} />}
    </div>
  );
}
