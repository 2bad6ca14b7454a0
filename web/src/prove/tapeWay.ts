import type { Measure } from "../api/types";

type Asked = { planned: number; unit: Measure; name: string };
const UPWARD = /\b(above|over|up)\b/i;

/** Nobody reads a minus off a tape: what is planned the other way from its datum is told and typed from that side. */
export function wayOf({ planned, unit, name }: Asked): { sign: 1 | -1; word: string } {
  if (planned >= 0 || unit !== "mm") return { sign: 1, word: "" };
  return { sign: -1, word: UPWARD.test(name) ? " below" : " ahead" };
}
