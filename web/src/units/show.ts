import type { Style } from "../api/types";

const MM_PER_INCH = 25.4;

/** A length as a tape reads it, with its unit. The same table of examples tests the core's formatter. */
export function showLength(valueMm: number, style: Style): string {
  if (style === "mm") return `${trim(valueMm.toFixed(1))} mm`;
  if (style === "in") return `${trim((valueMm / MM_PER_INCH).toFixed(3))}"`;
  return fraction(valueMm, style === "in16" ? 16 : 32);
}

function trim(text: string): string {
  const short = text.includes(".") ? text.replace(/0+$/, "").replace(/\.$/, "") : text;
  return short === "-0" ? "0" : short;
}

function fraction(valueMm: number, below: number): string {
  const parts = Math.floor((Math.abs(valueMm) / MM_PER_INCH) * below + 0.5);
  const sign = valueMm < 0 && parts ? "-" : "";
  const whole = Math.floor(parts / below);
  let top = parts % below;
  let bottom = below;
  if (top === 0) return `${sign}${whole}"`;
  while (top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  return `${sign}${whole ? `${whole} ` : ""}${top}/${bottom}"`;
}

/** A plain number with at most `digits` significant digits. */
export function showNumber(value: number, digits = 4): string {
  if (value === 0) return "0";
  const text = Number(value.toPrecision(digits));
  return Math.abs(text) >= 1e5 || Math.abs(text) < 1e-3 ? text.toExponential(digits - 1) : String(text);
}

/** The unit taken where none was typed. */
export function defaultUnit(style: Style): "mm" | "in" {
  return style === "mm" ? "mm" : "in";
}

/** One nudge of an arrow key, mm: 1/16 in or 1 mm. */
export function nudge(style: Style): number {
  return style === "mm" ? 1 : MM_PER_INCH / 16;
}

/** The nearest mark of the tape, mm. */
export function snap(valueMm: number, style: Style): number {
  const step = nudge(style);
  return Math.round(valueMm / step) * step;
}
