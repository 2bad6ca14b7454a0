import type { Draft } from "./document";
import { useBench } from "./store";

const CHANGED = "the design has changed in the meantime: press again";

/** Ask about the draft as it stands; an answer about an older one is never laid on a newer one. */
export async function askedOfDraft<T>(ask: (draft: Draft & { job_id: number }) => Promise<T>): Promise<T> {
  const { jobId, history } = useBench.getState();
  const { design, survey } = history.now;
  const answer = await ask({ job_id: jobId, design, survey });
  const now = useBench.getState();
  if (now.history.now !== history.now || now.jobId !== jobId) throw new Error(CHANGED);
  return answer;
}
