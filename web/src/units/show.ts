import type { Style } from "../api/types";

const MM_PER_INCH = 25.4;

/** A length as a tape reads it, with its unit. The same table of examples tests the core's formatter. */
export function showLength(valueMm: number, style: Style): string {
  if (style === "mm") return `${trim(valueMm.toFixed(1))} mm`;
  if (style === "in") return `${trim((valueMm / MM_PER_INCH).toFixed(3))}"`;
  return fraction(valueMm, style === "in16" ? 16 : 32);
}

/** A plate or wall: as an inch fraction only where it is one, else in decimals, so that 5 mm never reads 3/16". */
export function showThickness(valueMm: number, style: Style): string {
  const parts = (valueMm / MM_PER_INCH) * 32;
  const even = Math.abs(parts - Math.round(parts)) * (MM_PER_INCH / 32) < 0.02;
  if (style === "mm") return `${trim(valueMm.toFixed(2))} mm`;
  return even ? fraction(valueMm, 32) : `${trim((valueMm / MM_PER_INCH).toFixed(3))}"`;
}

/** A deviation with its sign: finer than a tape, so that what fails never reads 0. */
export function showDeviation(valueMm: number, style: Style): string {
  const sign = valueMm < 0 ? "-" : "+";
  const size = Math.abs(valueMm);
  return style === "mm" ? `${sign}${size.toFixed(2)} mm` : `${sign}${(size / MM_PER_INCH).toFixed(3)}"`;
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

export type Kind = "length" | "thickness" | "angle" | "mass" | "force" | "rate" | "pressure" | "torque" | "number";

const N_PER_LBF = 4.4482216152605;

/** Each kind's unit beside inches and beside millimetres, and what one of the former is in the core's unit. */
const UNITS: Record<Exclude<Kind, "length" | "thickness">, { inch: string; metric: string; inchInCore: number }> = {
  angle: { inch: "deg", metric: "deg", inchInCore: 1 },
  mass: { inch: "lb", metric: "kg", inchInCore: 0.45359237 },
  force: { inch: "lbf", metric: "N", inchInCore: N_PER_LBF },
  rate: { inch: "lb/in", metric: "N/mm", inchInCore: N_PER_LBF / MM_PER_INCH },
  pressure: { inch: "psi", metric: "bar", inchInCore: 0.0689475729316836 },
  torque: { inch: "lbf ft", metric: "N m", inchInCore: 1.3558179483314 },
  number: { inch: "", metric: "", inchInCore: 1 },
};

/** The unit taken where none was typed. */
export function unitOf(kind: Kind, style: Style): string {
  if (kind === "length" || kind === "thickness") return style === "mm" ? "mm" : "in";
  return UNITS[kind][style === "mm" ? "metric" : "inch"];
}

/** A quantity in the base unit of its kind, as a field shows it. */
export function showQuantity(value: number, kind: Kind, style: Style): string {
  if (kind === "length") return showLength(value, style);
  if (kind === "thickness") return showThickness(value, style);
  const shown = style === "mm" ? value : value / UNITS[kind].inchInCore;
  const unit = unitOf(kind, style);
  return `${trim(shown.toFixed(2))}${unit && ` ${unit}`}`;
}

/** What was typed, with its unit added where it was typed without one under another style. */
export function asTyped(typed: { text: string; unit: string }, kind: Kind, style: Style): string {
  const bare = !/[a-z"'°]/i.test(typed.text);
  return bare && typed.unit !== unitOf(kind, style) ? `${typed.text} ${typed.unit}` : typed.text;
}

/** One nudge of an arrow key, mm: 1/16 in or 1 mm. */
export function nudge(style: Style): number {
  return style === "mm" ? 1 : MM_PER_INCH / 16;
}

const NUDGES: Record<Exclude<Kind, "length">, number> = {
  thickness: 0.5,
  angle: 0.1,
  mass: 1,
  force: 100,
  rate: 1,
  pressure: 0.1,
  torque: 1,
  number: 0.1,
};

/** One nudge of a field, in the core's unit: a tape mark, a tenth of a degree, a kilogram or a pound. */
export function nudgeOf(kind: Kind, style: Style): number {
  if (kind === "length") return nudge(style);
  if (style === "mm") return NUDGES[kind];
  if (kind === "thickness") return MM_PER_INCH / 16;
  return kind === "mass" || kind === "rate" || kind === "torque" ? UNITS[kind].inchInCore : NUDGES[kind];
}

/** The nearest mark of the tape, mm. */
export function snap(valueMm: number, style: Style): number {
  const step = nudge(style);
  return Math.round(valueMm / step) * step;
}

/** The next mark of the tape that is not smaller, mm. */
export function snapUp(valueMm: number, style: Style): number {
  const step = nudge(style);
  return Math.round(Math.ceil(valueMm / step - 1e-6) * step * 1e6) / 1e6;
}
