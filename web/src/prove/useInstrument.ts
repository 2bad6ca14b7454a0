import { create } from "zustand";
import { useCatalogue } from "../api/catalogue";
import type { Measure } from "../api/types";
import { useBench } from "../draft/store";
import type { Kind } from "../units/show";

/** What is being read: lengths, thicknesses, levels, or any other measure by its unit. */
export type Reads = "length" | "thickness" | "level" | Exclude<Measure, "mm">;

/** What each is read with until somebody takes another. */
const useChosen = create<Record<Reads, string>>(() => ({
  length: "tape",
  thickness: "calliper",
  level: "level",
  deg: "angle-finder",
  kg: "scales",
  "N m": "torque-wrench",
  turns: "turns",
}));

const UNITS: Partial<Record<Reads, Measure>> = { length: "mm", thickness: "mm", level: "mm" };
export const KINDS: Record<Measure, Kind> = {
  mm: "length",
  deg: "angle",
  kg: "mass",
  "N m": "torque",
  turns: "number",
};

/**
 * The instrument that is in hand for a kind of reading, with how finely it is read in the job's unit;
 * of a reading that it cannot take, the first of those that can.
 */
export function useInstrument(kind: Reads, suits?: readonly string[]) {
  const { instruments } = useCatalogue();
  const id = useChosen((s) => s[kind]);
  const style = useBench((s) => s.style);
  const unit = UNITS[kind] ?? (kind as Measure);
  const fit = instruments.filter((i) => i.unit === unit);
  const able = suits ? fit.filter((i) => suits.includes(i.id)) : fit;
  const own = able.find((i) => i.id === id) ?? able.find((i) => i.id === suits?.[0]) ?? fit[0];
  const resolution = style === "mm" ? own?.metric : own?.inch;
  return {
    id: own?.id ?? id,
    zeroed: own?.zeroed ?? false,
    choices: fit.map((i) => [i.id, i.name] as const),
    choose: (next: string) => useChosen.setState({ [kind]: next }),
    read: { instrument: own?.name ?? "tape", resolution: resolution ?? 0.5 },
  };
}
