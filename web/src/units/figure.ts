import type { Style } from "../api/types";
import { showLength, showNumber } from "./show";

const N_PER_LBF = 4.4482216152605;
const MM_PER_INCH = 25.4;
const N_M_PER_LBF_FT = 1.3558179483314;

/** Units of the core's figures, and what stands beside inches in their place: the unit, and how much of the core's it is. */
const BESIDE_INCHES: Record<string, readonly [string, number]> = {
  N: ["lbf", N_PER_LBF],
  kN: ["lbf", N_PER_LBF / 1000],
  "N m": ["lbf ft", N_M_PER_LBF_FT],
  "kN m": ["lbf ft", N_M_PER_LBF_FT / 1000],
  "N m/deg": ["lbf ft/deg", N_M_PER_LBF_FT],
  "N/mm": ["lb/in", N_PER_LBF / MM_PER_INCH],
  MPa: ["ksi", 6.894757293168],
  bar: ["psi", 0.0689475729316836],
  kg: ["lb", 0.45359237],
  m: ["ft", 0.3048],
  "mm²": ["in²", MM_PER_INCH ** 2],
  "mm³": ["in³", MM_PER_INCH ** 3],
  "mm⁴": ["in⁴", MM_PER_INCH ** 4],
};

/** Section properties as steel tables have them. */
const BESIDE_MM: Record<string, readonly [string, number]> = {
  "mm²": ["cm²", 100],
  "mm³": ["cm³", 1000],
  "mm⁴": ["cm⁴", 10_000],
};

/** A value and its unit as the job's unit system has them. */
export function beside(value: number, unit: string, style: Style): { value: number; unit: string } {
  const own = (style === "mm" ? BESIDE_MM : BESIDE_INCHES)[unit];
  return own ? { value: value / own[1], unit: own[0] } : { value, unit };
}

/** A figure of the core with its unit, with so many significant digits. */
export function showFigure(value: number, unit: string, style: Style, digits = 3): string {
  if (unit === "mm") return showLength(value, style);
  if (unit === "share") return `${(value * 100).toFixed(0)} %`;
  const own = beside(value, unit, style);
  const whole = Math.abs(own.value) >= 10 ** digits;
  return `${whole ? own.value.toFixed(0) : showNumber(own.value, digits)}${own.unit && ` ${own.unit}`}`;
}
