import type { Style } from "../api/types";

/** How a tape is read, in the order it is offered. */
export const STYLES: readonly (readonly [Style, string])[] = [
  ["in16", "inch, 1/16"],
  ["in32", "inch, 1/32"],
  ["in", "decimal inch"],
  ["mm", "mm"],
];
