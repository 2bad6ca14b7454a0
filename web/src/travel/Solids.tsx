import { memo } from "react";
import type { AxleTravel } from "../api/types";
import { paint } from "../app/theme";
import { type Vec, vec } from "./space";
import type { PaperView } from "./views";

type Props = {
  view: PaperView;
  solids: AxleTravel["solids"];
  hub: AxleTravel["hub"];
  place: (p: { body: number; x_mm: number; y_mm: number; z_mm: number }) => Vec;
};
type Solid = AxleTravel["solids"][number];

/** Brackets, mounts and plates of the design in one view: right side and its mirror image, one path for all of one name. */
export const Solids = memo(function Solids({ view, solids, hub: at, place }: Props) {
  const hub = vec(at);
  const drawn = new Map<string, string>();
  for (const solid of solids) {
    const on = solid.on === "axle";
    for (const side of [1, -1]) {
      const ring = corners(solid, view).map(([x, y, z]) => {
        const p = { body: on ? 0 : -1, x_mm: on ? hub[0] + x : x, y_mm: side * y, z_mm: on ? hub[2] + z : z };
        const [px, py] = view.at(place(p));
        return `${px.toFixed(1)} ${py.toFixed(1)}`;
      });
      drawn.set(solid.name, `${drawn.get(solid.name) ?? ""}M${ring.join("L")}Z`);
    }
  }
  return (
    <g fill={paint("added")} fillOpacity="0.14" stroke={paint("added")}>
      {[...drawn].map(([name, d]) => (
        <path key={name} d={d} data-solid={name}>
          <title>{name}</title>
        </path>
      ))}
    </g>
  );
}, sameSolids);

function sameSolids(a: Props, b: Props): boolean {
  return a.view === b.view && a.solids === b.solids && a.place === b.place && String(a.hub) === String(b.hub);
}

/** The outline of a block as one view sees it, in its middle plane. */
function corners({ x, y, z, side }: Solid, view: PaperView): Vec[] {
  const [x0, x1] = x as [number, number];
  const [y0, y1] = y as [number, number];
  const [z0, z1] = z as [number, number];
  if (view.name === "side") {
    const ym = (y0 + y1) / 2;
    if (side.length) return side.map((p) => [p[0] ?? 0, ym, p[1] ?? 0] as Vec);
    return [
      [x0, ym, z0],
      [x1, ym, z0],
      [x1, ym, z1],
      [x0, ym, z1],
    ];
  }
  if (view.name === "plan") {
    const zm = (z0 + z1) / 2;
    return [
      [x0, y0, zm],
      [x1, y0, zm],
      [x1, y1, zm],
      [x0, y1, zm],
    ];
  }
  const xm = (x0 + x1) / 2;
  return [
    [xm, y0, z0],
    [xm, y1, z0],
    [xm, y1, z1],
    [xm, y0, z1],
  ];
}
