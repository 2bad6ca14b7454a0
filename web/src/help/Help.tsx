import { lazy, Suspense } from "react";
import { useHelp } from "./helpStore";

const HelpPanel = lazy(() => import("./HelpPanel"));
const Palette = lazy(() => import("./Palette"));
const GuidedLook = lazy(() => import("./GuidedLook"));

/** What is fetched when it is first asked for: the help panel, find and do, the look round. */
export function Help() {
  const { sheet, finding, look } = useHelp();
  return (
    <Suspense fallback={null}>
      {sheet && <HelpPanel />}
      {finding && <Palette />}
      {look !== null && <GuidedLook />}
    </Suspense>
  );
}
