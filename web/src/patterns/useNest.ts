import { create } from "zustand";
import type { components } from "../api/schema";
import type { Draft } from "../draft/document";
import { usePick } from "../draft/store";
import type { MetalRack } from "./stockText";

export type NestPlan = components["schemas"]["NestPlan"];
/** What a plan was made of: the option, its draft and the rack. */
export type Of = { option: number; draft: Draft; rack: MetalRack };

type Nested = {
  plan: NestPlan | null;
  of: Of | null;
  /** Which of its sheets lies on the bench. */
  sheet: number | null;
  take: (plan: NestPlan, of: Of) => void;
  show: (sheet: number | null) => void;
};

/** Plates as they were last laid out. */
export const useNest = create<Nested>((set) => ({
  plan: null,
  of: null,
  sheet: null,
  take: (plan, of) => set({ plan, of, sheet: plan.sheets.length ? 0 : null }),
  show: (sheet) => set({ sheet }),
}));

/** The newest plan of the option on the bench, and its sheet that is looked at. */
export function useOwnNest() {
  const { optionId } = usePick("optionId");
  const { plan, of, sheet } = useNest();
  if (!plan || !of || of.option !== optionId) return null;
  return { plan, of, sheet: sheet === null ? undefined : plan.sheets[sheet] };
}
