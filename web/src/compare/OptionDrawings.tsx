import { Text } from "@chakra-ui/react";
import type { SideBySide } from "../api/types";
import { paint } from "../app/theme";
import { linePath, outlinePath } from "../drawing/outlinePath";
import { Patterns } from "../drawing/Patterns";

const WIDTH = 1180;
const BAND = 118;

/** Every option's left rail from the side, below each other on one scale. */
export function OptionDrawings({ data }: { data: SideBySide }) {
  const xs = data.options.flatMap((o) => o.rail.x_mm);
  const [first, last] = [Math.min(...xs) - 60, Math.max(...xs) + 60];
  const perMm = WIDTH / (last - first);
  const height = BAND * data.options.length;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} width="100%" role="img" aria-label="Left rails of the options on one scale">
      <Patterns />
      {data.options.map((option, i) => {
        const base = BAND * i + BAND * 0.72;
        const at = (x: number, z: number) => [(x - first) * perMm, base - z * perMm] as const;
        const { rail } = option;
        const low = rail.x_mm.map((x, k) => at(x, rail.underside_z_mm[k] ?? 0));
        const high = rail.x_mm.map((x, k) => at(x, rail.top_z_mm[k] ?? 0));
        return (
          <g key={option.id}>
            <path d={`M0 ${BAND * (i + 1)}H${WIDTH}`} stroke={paint("rule")} />
            <text x="4" y={BAND * i + 16} fill={paint("ink")} style={{ fontSize: 14, fontWeight: 600 }}>
              {option.name}
            </text>
            <text x="4" y={BAND * i + 33} fill={paint("faint")} style={{ fontSize: 12.5 }}>
              {option.fails} fail, {option.not_computed} not computed, {option.weaker} weaker, {option.close} close,{" "}
              {option.holds} hold. Worst: {option.worst}. Stock spares: {option.stock_spares}
            </text>
            <path
              d={linePath([...low, ...[...high].reverse()], true)}
              fill={paint("panel")}
              stroke={paint("ink")}
              strokeWidth="1.2"
            />
            {option.parts.map((part) => (
              <path
                key={part.id}
                d={outlinePath(part.outline, at, perMm)}
                fill="url(#fill-added)"
                stroke={paint("added")}
                strokeWidth="0.8"
              />
            ))}
            {rail.cuts.map((cut) => (
              <path
                key={cut.vertices[0]?.x}
                d={outlinePath({ ...cut, closed: true }, at, perMm)}
                fill={paint("sheet")}
                stroke={paint("removed")}
                strokeDasharray="5 3"
              />
            ))}
          </g>
        );
      })}
      {data.options.length === 0 && <Text>Nothing to draw</Text>}
    </svg>
  );
}
