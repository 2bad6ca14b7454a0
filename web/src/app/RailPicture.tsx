import { Box } from "@chakra-ui/react";
import type { RailDrawing } from "../api/types";
import { linePath, outlinePath } from "../drawing/outlinePath";
import { paint } from "./theme";

const WIDE = 460;
const HIGH = 46;

/** A job at a glance: its left rail from the side, as planned, with what is cut out of it. */
export function RailPicture({ rail }: { rail?: RailDrawing | null }) {
  if (!rail || rail.x_mm.length < 2) return <Box height={`${HIGH}px`} />;
  const [first, last] = [Math.min(...rail.x_mm), Math.max(...rail.x_mm)];
  const [low, high] = [Math.min(...rail.underside_z_mm), Math.max(...rail.top_z_mm)];
  const perMm = Math.min((WIDE - 4) / (last - first), (HIGH - 4) / (high - low));
  const at = (x: number, z: number) => [2 + (x - first) * perMm, HIGH / 2 + ((high + low) / 2 - z) * perMm] as const;
  const under = rail.x_mm.map((x, i) => at(x, rail.underside_z_mm[i] ?? 0));
  const over = rail.x_mm.map((x, i) => at(x, rail.top_z_mm[i] ?? 0));
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      style={{ maxWidth: WIDE, display: "block" }}
      role="img"
      aria-label="left rail as planned"
    >
      <path d={linePath([...under, ...over.reverse()], true)} fill={paint("rule")} stroke={paint("ink")} />
      {rail.cuts.map((cut) => (
        <path
          key={cut.vertices[0]?.x}
          d={outlinePath({ ...cut, closed: true }, at, perMm)}
          fill={paint("panel")}
          stroke={paint("removed")}
        />
      ))}
    </svg>
  );
}
