import { memo } from "react";
import type { Operation, RailDrawing, Side } from "../api/types";
import { paint } from "../app/theme";
import type { Draft } from "../draft/document";
import type { Heights } from "./Elevation";
import { stationOf } from "./handles";
import { between, type Scale } from "./scale";

type Props = { draft: Draft; rail?: RailDrawing; side: Side; scale: Scale; heights: Heights };
type Hole = Extract<Operation, { kind: "hole" }>;

const LEAST_R = 2.5;

/** Holes of the plan on the elevation: drilled open, plugged filled, sleeved with the sleeve's wall around the bore. */
export const PlannedHoles = memo(function PlannedHoles({ draft, rail, side, scale, heights }: Props) {
  if (!rail) return null;
  const own = draft.design.operations.filter(
    (op): op is Hole => op.kind === "hole" && (op.side === "both" || op.side === side),
  );
  return (
    <g>
      {own.map((hole) => {
        const at = stationOf({ draft, rail }, hole.place);
        const cy = heights.z(between(at, rail.x_mm, rail.underside_z_mm) + hole.height_mm);
        const r = (mm: number) => Math.max((mm / 2) * scale.perMm, LEAST_R);
        const cx = scale.x(at);
        return (
          <g key={hole.id} data-part={`${hole.id}/hole`}>
            {hole.work === "sleeve" && hole.sleeve && (
              <circle cx={cx} cy={cy} r={r(hole.sleeve.outside_mm ?? 22) + 1} fill={paint("added")} />
            )}
            <circle
              cx={cx}
              cy={cy}
              r={r(hole.diameter_mm)}
              fill={hole.work === "plug" ? paint("added") : paint("bench")}
              stroke={hole.work === "drill" ? paint("removed") : paint("added")}
              strokeWidth="1.5"
              data-line="HOLE"
            />
          </g>
        );
      })}
    </g>
  );
});
