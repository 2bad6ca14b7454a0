import { memo } from "react";
import type { Feature, RailDrawing, Side, Survey } from "../api/types";
import { paint } from "../app/theme";
import type { Heights } from "./Elevation";
import { between, plannedX, type Scale } from "./scale";

type Props = { survey: Survey; rail?: RailDrawing; side: Side; scale: Scale; heights: Heights; tapeY: number };

/** Features of the frame on the elevation, named along the tape so that one can hook onto them. */
export const Features = memo(function Features({ survey, rail, side, scale, heights, tapeY }: Props) {
  const xs = rail?.x_mm ?? survey.rails[side].stations.map((s) => s.x_mm);
  const unders = rail?.underside_z_mm ?? survey.rails[side].stations.map((s) => s.underside_z_mm);
  let freeFrom = [-1e9, -1e9];
  const shown = survey.features
    .filter((f) => f.side === "both" || f.side === side)
    .map((f) => ({ ...f, x_mm: plannedX(rail, f.x_mm) }))
    .filter((f) => scale.x(f.x_mm) > -40 && scale.x(f.x_mm) < scale.width + 10)
    .sort((a, b) => a.x_mm - b.x_mm);
  return (
    <g>
      {shown.map((feature) => {
        const x = scale.x(feature.x_mm);
        const row = freeFrom.findIndex((end) => x >= end);
        if (row >= 0) freeFrom = freeFrom.map((end, i) => (i === row ? x + feature.name.length * 6.3 + 10 : end));
        return (
          <g key={feature.id}>
            <path d={`M${x} ${tapeY - 14 - Math.max(row, 0) * 15}V${tapeY}`} stroke={paint("faint")} />
            {row >= 0 && (
              <text x={x + 4} y={tapeY - 5 - row * 15} fill={paint("faint")} className="halo" style={{ fontSize: 12 }}>
                {feature.name}
              </text>
            )}
            <Mark feature={feature} x={x} under={heights.z(between(feature.x_mm, xs, unders))} scale={scale} />
          </g>
        );
      })}
    </g>
  );
});

function Mark({ feature, x, under, scale }: { feature: Feature; x: number; under: number; scale: Scale }) {
  if (feature.kind === "hole") {
    const cy = under - (feature.height_mm ?? 0) * scale.perMm;
    const r = Math.max(((feature.diameter_mm ?? 6) / 2) * scale.perMm, 2);
    return <circle cx={x} cy={cy} r={r} fill={paint("bench")} stroke={paint("ink")} data-line="HOLE" />;
  }
  if (feature.kind === "hanger") return <path d={`M${x - 7} ${under}v12h14v-12`} fill="none" stroke={paint("ink")} />;
  if (feature.kind === "crossmember") {
    return (
      <rect
        x={x}
        y={under - 90 * scale.perMm}
        width={8}
        height={80 * scale.perMm}
        fill="none"
        stroke={paint("faint")}
      />
    );
  }
  return <path d={`M${x} ${under}v8`} stroke={paint("faint")} strokeDasharray="2 2" />;
}
