import { shownDraft, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";

/** The suspension that lies on the bench: its number in the design and what the core says of it. */
export function useAxle() {
  const { result, stale, shownAt } = useShown();
  const chosen = useBench((s) => s.suspension);
  const count = useBench((s) => shownDraft(s).design.suspensions?.length ?? 0);
  const index = Math.min(chosen, Math.max(count - 1, 0));
  const axle = count > 0 ? result?.travel?.find((t) => t.index === index) : undefined;
  return { result, stale, shownAt, axle, index, count };
}
