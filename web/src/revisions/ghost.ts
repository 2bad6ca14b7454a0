import { create } from "zustand";
import { api, got } from "../api/client";
import type { Design, Evaluation } from "../api/types";
import { useBench } from "../draft/store";

/** Another design drawn under the one on the bench, by its name. */
export const useGhost = create<{ name: string; result: Evaluation | null }>(() => ({ name: "", result: null }));

export const noGhost = () => useGhost.setState({ name: "", result: null });

/** Draw a design under the one on the bench. */
export async function showGhost(name: string, design: Design): Promise<void> {
  const { jobId, history, loadCase, loadState } = useBench.getState();
  const off = {
    strips: false,
    steps: false,
    readings: false,
    frame: false,
    interim: false,
    along: false,
    travel: false,
    as_built: false,
  };
  const body = {
    job_id: jobId,
    design,
    survey: history.now.survey,
    slim: true,
    sequence: 0,
    want: { ...off, parts: true, case: loadCase, load_state: loadState },
  };
  const result = await got(api.POST("/api/evaluate", { body }));
  useGhost.setState({ name, result });
}
