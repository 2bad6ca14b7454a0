import { create } from "zustand";
import type { components } from "../api/schema";

export type NestPlan = components["schemas"]["NestPlan"];

type Nested = {
  /** The newest plan, and the draft that it was made of. */
  plan: NestPlan | null;
  of: unknown;
  /** Which of its sheets lies on the bench. */
  sheet: number | null;
  take: (plan: NestPlan | null, of: unknown) => void;
  show: (sheet: number | null) => void;
};

/** Plates as they were last laid out. */
export const useNest = create<Nested>((set) => ({
  plan: null,
  of: null,
  sheet: null,
  take: (plan, of) => set({ plan, of, sheet: plan?.sheets.length ? 0 : null }),
  show: (sheet) => set({ sheet }),
}));
