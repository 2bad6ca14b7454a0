import type { AxleName } from "../api/types";
import { shownDraft, useBench } from "../draft/store";
import { Line } from "./line";
import { useShown } from "./shown";

export { NONE, resetEvaluation, useShown } from "./shown";

/** The axle that a job is about: the front one where it is about it alone. */
export const useMainAxle = (): AxleName =>
  useShown((s) => (s.result?.touched.includes("rear") === false ? "front" : "rear"));

/** Evaluate whenever the draft, the side, the station or the load case changes; outside React, so that a drag redraws only what it moves. */
export function startEvaluation(): () => void {
  const line = new Line();
  const again = () => void line.run();
  useShown.setState({ again });
  if (useBench.getState().jobId) again();
  addEventListener("online", again);
  const stop = useBench.subscribe((now, then) => {
    const asked =
      now.side !== then.side ||
      now.style !== then.style ||
      now.stationMm !== then.stationMm ||
      now.loadCase !== then.loadCase ||
      now.loadState !== then.loadState;
    const changed = shownDraft(now) !== shownDraft(then) || now.jobId !== then.jobId || now.optionId !== then.optionId;
    const ended = then.gesture !== null && now.gesture === null;
    if (now.jobId && now.optionId && (asked || changed || ended)) again();
  });
  return () => {
    removeEventListener("online", again);
    stop();
    line.end();
  };
}

export function evaluateAgain(): void {
  useShown.getState().again();
}
