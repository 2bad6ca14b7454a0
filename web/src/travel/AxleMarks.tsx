import { memo } from "react";
import type { AxleTravel, BodyPoint } from "../api/types";
import { paint } from "../app/theme";
import { type Vec, valueAtTravel, vec } from "./pose";
import type { PaperView } from "./views";

type Props = {
  view: PaperView;
  axle: AxleTravel;
  place: (p: BodyPoint) => Vec;
  left?: (p: BodyPoint) => Vec;
  travelMm: number;
};

/** Where both hubs and the ground are at a travel and a roll. */
function standing({ axle, place, left: other, travelMm }: Props) {
  const [hx, , hz] = vec(axle.hub);
  const half = axle.half_track_mm ?? 700;
  const r = axle.radius_mm ?? 330;
  const hub = (y: number): Vec => {
    const own = (axle.independent && y < 0 ? (other ?? place) : place)({
      body: 0,
      x_mm: hx,
      y_mm: axle.independent ? half : y,
      z_mm: hz,
    });
    return axle.independent && y < 0 ? [own[0], -own[1], own[2]] : own;
  };
  return { right: hub(half), left: hub(-half), ground: hz - r + travelMm, r, hx };
}

/** The construction over everything else: instant centre, roll centre. */
export const Constructed = memo(function Constructed(props: Props) {
  const { right, left, ground } = standing(props);
  const hub: Vec = [(right[0] + left[0]) / 2, 0, (right[2] + left[2]) / 2];
  return (
    <g fill="none">
      <Construction view={props.view} axle={props.axle} travelMm={props.travelMm} hub={hub} ground={ground} />
    </g>
  );
});

/** Wheels, the line of the hubs, the ground. */
export const AxleMarks = memo(function AxleMarks(props: Props) {
  const { view, axle } = props;
  const { right, left, ground, r, hx } = standing(props);
  const width = 0.3 * r * 2;
  return (
    <g fill="none">
      {[right, left].map((wheel, i) => (
        <Wheel key={i === 0 ? "right" : "left"} view={view} at={wheel} radius={r} width={width} />
      ))}
      {!axle.independent && <Line view={view} from={left} to={right} width={76} />}
      {view.name !== "plan" && (
        <path
          d={`M${view.left} ${view.at([hx, 0, ground])[1]}h${view.width}`}
          stroke={paint("faint")}
          strokeDasharray="10 4"
        >
          <title>ground</title>
        </path>
      )}
    </g>
  );
});

function Wheel({ view, at, radius, width }: { view: PaperView; at: Vec; radius: number; width: number }) {
  const [x, y] = view.at(at);
  const r = radius * view.perMm;
  const w = width * view.perMm;
  if (view.name === "side")
    return <circle cx={x} cy={y} r={r} stroke={paint("rule")} strokeWidth="2" strokeDasharray="14 5" />;
  const [dx, dy] = [w / 2, r];
  return (
    <rect
      x={x - dx}
      y={y - dy}
      width={2 * dx}
      height={2 * dy}
      rx={6}
      stroke={paint("rule")}
      strokeWidth="2"
      strokeDasharray="14 5"
    />
  );
}

function Line({ view, from, to, width }: { view: PaperView; from: Vec; to: Vec; width: number }) {
  const [a, b] = [view.at(from), view.at(to)];
  if (view.name === "side") {
    return (
      <circle
        cx={a[0]}
        cy={a[1]}
        r={(width / 2) * view.perMm}
        stroke={paint("ink")}
        strokeWidth="1.5"
        fill={paint("panel")}
      />
    );
  }
  return (
    <path
      d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
      stroke={paint("rule")}
      strokeWidth={width * view.perMm}
      opacity="0.5"
    />
  );
}

type Built = { view: PaperView; axle: AxleTravel; travelMm: number; hub: Vec; ground: number };

/** Where the side view turns about, and where the body rolls about. */
function Construction({ view, axle, travelMm, hub, ground }: Built) {
  const read = (id: string) => {
    const curve = axle.curves.find((c) => c.id === id);
    return curve ? valueAtTravel(axle.travel_mm, curve.values, travelMm) : null;
  };
  if (view.name === "side") {
    const [x, z] = [read("ic-x"), read("ic-z")];
    if (x == null || z == null) return null;
    const [px, py] = view.at([x, 0, z]);
    const [cx, cy] = view.at([hub[0], 0, ground]);
    return (
      <g stroke={paint("chalk")}>
        <path d={`M${cx} ${cy}L${px} ${py}`} strokeDasharray="2 5" />
        <Cross x={px} y={py} words="instant centre" />
      </g>
    );
  }
  const height = read("roll-centre");
  if (view.name !== "end" || height == null) return null;
  const [px, py] = view.at([hub[0], 0, ground + height]);
  return (
    <g stroke={paint("chalk")}>
      <Cross x={px} y={py} words="roll centre" />
    </g>
  );
}

function Cross({ x, y, words }: { x: number; y: number; words: string }) {
  return (
    <g>
      <path d={`M${x - 7} ${y - 7}l14 14M${x + 7} ${y - 7}l-14 14`} strokeWidth="2" />
      <text x={x + 11} y={y - 6} fill={paint("chalk")} stroke="none" className="halo" style={{ fontSize: 12 }}>
        {words}
      </text>
    </g>
  );
}
