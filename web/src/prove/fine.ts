import type { Style } from "../api/types";

/** Deviations are finer than a tape's fractions. */
export const fine = (mm: number, style: Style) =>
  style === "mm" ? `${mm.toFixed(1)} mm` : `${(mm / 25.4).toFixed(2)}"`;
