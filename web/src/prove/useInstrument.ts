import { create } from "zustand";
import { useCatalogue } from "../api/catalogue";
import { useBench } from "../draft/store";

/** What lengths and thicknesses are read with, until somebody takes another. */
const useChosen = create<{ length: string; thickness: string }>(() => ({ length: "tape", thickness: "calliper" }));

export type Reads = "length" | "thickness";

/** The instrument that is in hand for a kind of reading, with how finely it is read in the job's unit. */
export function useInstrument(kind: Reads) {
  const { instruments } = useCatalogue();
  const id = useChosen((s) => s[kind]);
  const style = useBench((s) => s.style);
  const own = instruments.find((i) => i.id === id) ?? instruments[0];
  const resolution = style === "mm" ? own?.metric_mm : own?.inch_mm;
  return {
    id: own?.id ?? id,
    choices: instruments.map((i) => [i.id, i.name] as const),
    choose: (next: string) => useChosen.setState({ [kind]: next }),
    read: { instrument: own?.name ?? "tape", resolution_mm: resolution ?? 0.5 },
  };
}
