import { memo } from "react";
import type { Style } from "../api/types";
import { paint } from "../app/theme";
import type { Heights } from "./Elevation";
import { marksOf } from "./Tape";

/** Width of the upright tape. */
const HEIGHT_W = 40;
/** Kept free above for the sheet's own name, below for the names of features. */
const ABOVE = 26;
const BELOW = 36;

type Props = { heights: Heights; perMm: number; bottom: number; style: Style };

/** Heights over the datum plane at the sheet's left edge; the datum's triangle stands at zero. */
export const HeightScale = memo(function HeightScale({ heights, perMm, bottom, style }: Props) {
  const { unit, fine, isNamed, long } = marksOf(style, perMm, 30);
  const [from, to] = [bottom - BELOW, ABOVE];
  if (from - to < 60) return null;
  let ticks = "";
  const names: [number, number][] = [];
  for (let i = Math.ceil(heights.mm(from) / unit / fine); i <= Math.floor(heights.mm(to) / unit / fine); i += 1) {
    const value = i * fine;
    const y = heights.z(value * unit);
    ticks += `M${HEIGHT_W} ${y.toFixed(1)}h${-long(value)}`;
    if (isNamed(value) && y > to + 10 && y < from - 6) names.push([y, Math.round(value * 16) / 16]);
  }
  const zero = heights.z(0);
  return (
    <g data-heights="" stroke={paint("faint")} pointerEvents="none">
      <rect x={0} y={to} width={HEIGHT_W} height={from - to} fill={paint("panel")} stroke="none" />
      <path d={`M${HEIGHT_W} ${to}V${from}`} />
      <path d={ticks} />
      {names.map(([y, value]) => (
        <text key={value} x={3} y={y + 4} stroke="none" fill={paint("ink")} style={{ fontSize: 12 }}>
          {value}
        </text>
      ))}
      {zero > to && zero < from && (
        <path
          d={`M${HEIGHT_W + 1} ${zero}l11 -6v12z`}
          stroke={paint("chalk")}
          fill={paint("chalk")}
          data-datum=""
          pointerEvents="auto"
        >
          <title>the datum plane: heights count from here</title>
        </path>
      )}
    </g>
  );
});
