import type { Amount, Said, Style } from "../api/types";
import { showLength, showThickness } from "./show";

const N_PER_LBF = 4.4482216152605;
const KG_PER_LB = 0.45359237;
const MPA_PER_KSI = 6.894757293168;
const MM_PER_FOOT = 304.8;

/** A sentence with its quantities as a person reads them. The same table of examples tests the core's own. */
export function tell(said: Said, style: Style): string {
  let out = said.text;
  for (const [name, amount] of Object.entries(said.of ?? {}))
    out = out.replaceAll(`{${name}}`, showAmount(amount, style));
  return out;
}

/** One quantity with its unit: inches, pounds and ksi beside inch styles, mm, newtons and MPa beside mm. */
export function showAmount({ value, kind }: Amount, style: Style): string {
  const inch = style !== "mm";
  switch (kind) {
    case "length":
      return showLength(value, style);
    case "thickness":
      return showThickness(value, style);
    case "count":
      return value.toFixed(0);
    case "factor":
    case "number":
      return significant(value, 2);
    case "ratio":
      return value.toFixed(2);
    case "share":
      // beside 100 with a decimal: only the whole reads 100
      return `${(100 * value).toFixed(Math.abs(value - 1) > 5e-5 && Math.abs(value - 1) < 5e-3 ? 1 : 0)} %`;
    case "force":
      return inch ? `${whole(value / N_PER_LBF)} lbf` : `${significant(value / 1000, 3)} kN`;
    case "moment":
      return inch ? `${whole(value / N_PER_LBF / MM_PER_FOOT)} lbf ft` : `${significant(value / 1e6, 3)} kN m`;
    case "stress":
      return inch ? `${significant(value / MPA_PER_KSI, 3)} ksi` : `${value.toFixed(0)} MPa`;
    case "angle":
      return `${value.toFixed(1)} deg`;
    case "mass":
      return inch ? `${significant(value / KG_PER_LB, 3)} lb` : `${significant(value, 3)} kg`;
    case "cycles":
      return value > 1e8 ? "more than 100 million cycles" : `${whole(Number(value.toPrecision(2)))} cycles`;
    case "stiffness":
      return inch ? `${whole((value * 1000) / N_PER_LBF / MM_PER_FOOT)} lbf ft/deg` : `${whole(value)} N m/deg`;
    case "minutes":
      return `${value.toFixed(0)} min`;
  }
}

/** A number with so many significant digits, never in powers of ten. */
function significant(value: number, digits: number): string {
  if (value === 0) return "0";
  if (Math.abs(value) >= 10 ** (digits - 1)) return whole(value);
  return Math.abs(value) < 1e-4 ? value.toFixed(4) : String(Number(value.toPrecision(digits)));
}

const whole = (value: number) => value.toFixed(0).replace(/\B(?=(\d{3})+(?!\d))/g, " ");
