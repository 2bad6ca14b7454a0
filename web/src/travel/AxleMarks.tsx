import { memo } from "react";
import type { AxleTravel, BodyPoint } from "../api/types";
import { paint } from "../app/theme";
import { valueAtTravel } from "./pose";
import { type Vec, vec } from "./space";
import { KNUCKLE } from "./turned";
import type { PaperView } from "./views";

type Props = {
  view: PaperView;
  axle: AxleTravel;
  place: (p: BodyPoint) => Vec;
  left?: (p: BodyPoint) => Vec;
  travelMm: number;
};

/** Where both hubs, their spin axes and the ground are at a travel, a roll and a steer. */
function standing({ axle, place, left: other, travelMm }: Props) {
  const [hx, , hz] = vec(axle.hub);
  const half = axle.half_track_mm ?? 700;
  const r = axle.radius_mm ?? 330;
  const knuckles = axle.steer != null && !axle.independent;
  const wheel = (side: 1 | -1, out: number): Vec => {
    const mirrored = axle.independent && side < 0;
    const own = (mirrored ? (other ?? place) : place)({
      body: knuckles ? (side > 0 ? KNUCKLE : KNUCKLE + 1) : 0,
      x_mm: hx,
      y_mm: mirrored ? half + out : side * (half + out),
      z_mm: hz,
    });
    return mirrored ? [own[0], -own[1], own[2]] : own;
  };
  return {
    right: wheel(1, 0),
    left: wheel(-1, 0),
    rightOut: wheel(1, 100),
    leftOut: wheel(-1, 100),
    ground: hz - r + travelMm,
    r,
    hx,
  };
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
  const { right, left, rightOut, leftOut, ground, r, hx } = standing(props);
  const width = 0.3 * r * 2;
  return (
    <g fill="none">
      <Wheel view={view} at={right} out={rightOut} radius={r} width={width} />
      <Wheel view={view} at={left} out={leftOut} radius={r} width={width} />
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

type WheelProps = { view: PaperView; at: Vec; out: Vec; radius: number; width: number };

/** A tyre: round from the side, else the box that it fills across and up, turned as it is steered and leaned. */
function Wheel({ view, at, out, radius, width }: WheelProps) {
  const stroke = { stroke: paint("rule"), strokeWidth: 2, strokeDasharray: "14 5" };
  if (view.name === "side") {
    const [x, y] = view.at(at);
    return <circle cx={x} cy={y} r={radius * view.perMm} {...stroke} />;
  }
  const long = Math.hypot(out[0] - at[0], out[1] - at[1], out[2] - at[2]) || 1;
  const axis: Vec = [(out[0] - at[0]) / long, (out[1] - at[1]) / long, (out[2] - at[2]) / long];
  // square to the axis: along the road in plan, up in the end view
  const flat = view.name === "plan" ? Math.hypot(axis[0], axis[1]) || 1 : Math.hypot(axis[1], axis[2]) || 1;
  const up: Vec = view.name === "plan" ? [-axis[1] / flat, axis[0] / flat, 0] : [0, -axis[2] / flat, axis[1] / flat];
  const corner = (a: number, b: number) =>
    view.at(
      [0, 1, 2].map(
        (k) => (at[k] ?? 0) + a * (width / 2) * (axis[k] ?? 0) + b * radius * (up[k] ?? 0),
      ) as unknown as Vec,
    );
  const ring = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)].map(
    ([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`,
  );
  return <polygon points={ring.join(" ")} strokeLinejoin="round" {...stroke} />;
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
    <line
      x1={a[0]}
      y1={a[1]}
      x2={b[0]}
      y2={b[1]}
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
        <line x1={cx} y1={cy} x2={px} y2={py} strokeDasharray="2 5" />
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
