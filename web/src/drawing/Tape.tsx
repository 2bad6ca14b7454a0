import { memo } from "react";
import type { Style } from "../api/types";
import { paint } from "../app/theme";
import type { Scale } from "./scale";

const INCH = 25.4;
export const TAPE_H = 30;

/** Marks of a tape at a scale: how far apart they lie, which of them carry a figure, in units of its style. */
export function marksOf(style: Style, perMm: number, room: number) {
  const unit = style === "mm" ? 1 : INCH;
  const steps = style === "mm" ? [1, 5, 10, 50, 100, 500] : [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 6, 12];
  const fine = steps.find((s) => s * unit * perMm >= 4) ?? 500;
  const named = (style === "mm" ? [10, 50, 100, 200, 500, 1000] : [1, 2, 6, 12, 24]).find(
    (s) => s * unit * perMm >= room,
  );
  const isNamed = (value: number) => named !== undefined && Math.abs(value / named - Math.round(value / named)) < 1e-6;
  const isHalf = (value: number) => Math.abs((value * 2) % 1) < 1e-6;
  const long = (value: number) => (isNamed(value) ? 13 : isHalf(value) ? 8 : 5);
  return { unit, fine, isNamed, long };
}

/** A tape along the sheet in the user's unit; its zero is hooked on a feature of the frame. */
export const Tape = memo(function Tape({
  scale,
  zeroMm,
  style,
  y,
}: {
  scale: Scale;
  zeroMm: number;
  style: Style;
  y: number;
}) {
  const { unit, fine, isNamed, long } = marksOf(style, scale.perMm, 46);
  const first = Math.ceil((scale.view.x0 - zeroMm) / unit / fine);
  const last = Math.floor((scale.view.x1 - zeroMm) / unit / fine);
  let ticks = "";
  const names: [number, number][] = [];
  for (let i = first; i <= last; i += 1) {
    const value = i * fine;
    const x = scale.x(zeroMm + value * unit);
    ticks += `M${x.toFixed(1)} ${y}v${long(value)}`;
    if (isNamed(value)) names.push([x, Math.round(value * 16) / 16]);
  }
  const zero = scale.x(zeroMm);
  return (
    <g stroke={paint("faint")}>
      <rect x={0} y={y} width={scale.width} height={TAPE_H} fill={paint("panel")} stroke="none" />
      <path d={`M0 ${y}H${scale.width}`} />
      <path d={ticks} />
      {names.map(([x, value]) => (
        <text key={value} x={x + 3} y={y + 24} stroke="none" fill={paint("ink")} style={{ fontSize: 12 }}>
          {value}
        </text>
      ))}
      <path d={`M${zero} ${y - 6}v${TAPE_H + 6}`} stroke={paint("chalk")} strokeWidth="2" />
      <path d={`M${zero} ${y - 6}h7v5h-7`} stroke={paint("chalk")} fill={paint("chalk")} />
    </g>
  );
});
