import { create } from "zustand";
import { moved, type View, zoomed } from "./scale";

/** Where the eye is along the frame, and which feature the tape is hooked on. */
type Looking = {
  view: View;
  hook: string | null;
  look: (view: View) => void;
  zoom: (factor: number, aboutMm: number) => void;
  pan: (byMm: number) => void;
  hookOn: (featureId: string | null) => void;
};

export const useLooking = create<Looking>((set) => ({
  view: { x0: 2150, x1: 3070 },
  hook: null,
  look: (view) => set({ view }),
  zoom: (factor, aboutMm) => set((s) => ({ view: zoomed(s.view, factor, aboutMm) })),
  pan: (byMm) => set((s) => ({ view: moved(s.view, byMm) })),
  hookOn: (hook) => set({ hook }),
}));

/** Bring a station into view, keeping the span. */
export function lookAt(stationMm: number): void {
  const { view, look } = useLooking.getState();
  const half = (view.x1 - view.x0) / 2;
  if (stationMm < view.x0 + half * 0.2 || stationMm > view.x1 - half * 0.2) {
    look({ x0: stationMm - half, x1: stationMm + half });
  }
}
