import type { AxleTravel } from "../api/types";
import { shownDraft, suspensionSeen, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";

/** The number in the design of the suspension that lies on the bench. */
export function useIndex() {
  const index = useBench(suspensionSeen);
  const count = useBench((s) => shownDraft(s).design.suspensions?.length ?? 0);
  return { index, count };
}

/** One part of what the core says of it: draws again only when that part is another. */
export function useAxlePart<K extends keyof AxleTravel>(part: K): AxleTravel[K] | undefined {
  const { index, count } = useIndex();
  return useShown((s) => (count > 0 ? s.result?.travel?.find((t) => t.index === index)?.[part] : undefined));
}

/** One figure or word of it: draws again only when it is another. */
export function useAxleFigure<T extends string | number | boolean>(
  read: (axle: AxleTravel) => T | undefined,
): T | undefined {
  const { index, count } = useIndex();
  return useShown((s) => {
    const axle = count > 0 ? s.result?.travel?.find((t) => t.index === index) : undefined;
    return axle && read(axle);
  });
}

/** The same with what the core says of it: who uses this draws again with every evaluation. */
export function useAxle() {
  const { result, stale, shownAt, last } = useShown();
  const { index, count } = useIndex();
  const axle = count > 0 ? result?.travel?.find((t) => t.index === index) : undefined;
  const stock = axle ? result?.stock_travel?.find((t) => t.axle === axle.axle) : undefined;
  const earlier = axle ? last.find((t) => t.index === index && t.layout === axle.layout) : undefined;
  return { result, stale, shownAt, axle, stock, earlier, index, count };
}
