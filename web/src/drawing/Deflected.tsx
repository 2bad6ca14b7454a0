import type { Evaluation, Side } from "../api/types";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import type { Heights } from "./Elevation";
import { linePath } from "./outlinePath";
import { between, type Scale } from "./scale";

type Props = { result: Evaluation; side: Side; scale: Scale; heights: Heights };

/** The rail's shape under the chosen load case, drawn far larger than it is; how much larger is written beside it. */
export function Deflected({ result, side, scale, heights }: Props) {
  const shown = useBench((s) => s.deflected);
  const style = useBench((s) => s.style);
  const rail = result.rails.find((r) => r.side === side);
  const own = result.deflection.find((d) => d.side === side);
  if (!shown || !rail || !own) return null;
  const most = Math.max(...own.up_mm.map(Math.abs), 1e-6);
  const times = [1, 2, 5, 10, 20, 50, 100, 200, 500].filter((n) => n * most * scale.perMm < 46).at(-1) ?? 1;
  const at = (x: number, i: number, edge: readonly number[]) =>
    [scale.x(x), heights.z(between(x, rail.x_mm, edge) + times * (own.up_mm[i] ?? 0))] as const;
  const low = own.x_mm.map((x, i) => at(x, i, rail.underside_z_mm));
  const high = own.x_mm.map((x, i) => at(x, i, rail.top_z_mm));
  return (
    <g data-part="deflected" pointerEvents="none">
      <path d={linePath(low)} fill="none" stroke={paint("touch")} strokeWidth="1.6" />
      <path d={linePath(high)} fill="none" stroke={paint("touch")} strokeWidth="1.6" />
      <text x={52} y={34} fill={paint("touch")} style={{ fontSize: 12 }}>
        bent shape x {times}, at most {style === "mm" ? `${most.toFixed(1)} mm` : `${(most / 25.4).toFixed(2)}"`}
      </text>
    </g>
  );
}
