import type { Draft } from "../draft/document";
import { STAGES, type StageName, useBench } from "../draft/store";

const KEY = "nodulant-stage-";

/** Where a job opens: where its work was left, else the survey while values of it are assumed, else the cut. */
export function stageToOpen(jobId: number, draft: Draft): StageName {
  const kept = remembered(jobId);
  if (kept) return kept;
  return Object.keys(draft.survey.assumed ?? {}).length > 0 ? "survey" : "cut";
}

function remembered(jobId: number): StageName | undefined {
  try {
    const found = localStorage.getItem(KEY + jobId);
    return STAGES.find((stage) => stage === found);
  } catch {
    return undefined;
  }
}

/** Remember the open stage of each job in this browser. */
export function startStageMemory(): () => void {
  return useBench.subscribe((now, then) => {
    if (now.stage === then.stage || !now.jobId || now.optionId !== then.optionId) return;
    try {
      localStorage.setItem(KEY + now.jobId, now.stage);
    } catch {
      // a browser that keeps nothing opens jobs where it would the first time
    }
  });
}
