import { memo } from "react";
import type { AxleDrawing, Evaluation, Outline, Side } from "../api/types";
import { paint } from "../app/theme";
import { linePath, outlinePath } from "./outlinePath";
import { nearest, type Scale } from "./scale";

export type Heights = { z: (mm: number) => number; mm: (px: number) => number };

/** Room over the rail: for its name, and for what is marked off there. */
const NAME = 24;
const MARKED = 52;
/** Two rows of names under the rails, and how much of what stands highest they may push out of sight. */
const NAMES_BELOW = 36;
const MOST_HIDDEN = 30;

/** Heights to pixels: what there is to see, from the tube at ride height to the top of a cap, in the middle of the band. */
export function heightsOf(
  height: number,
  scale: Scale,
  result: Evaluation | null,
  side: Side,
  marked: boolean,
): Heights {
  const rail = result?.rails.find((r) => r.side === side);
  const axle = result?.axle.find((a) => a.side === side);
  const plates = result?.parts.filter((p) => p.side === side && (p.face === "outer" || p.face === "inner")) ?? [];
  const tops = [...(rail?.top_z_mm ?? [150]), ...plates.flatMap((p) => p.outline.vertices.map((v) => v.y))];
  const top = Math.max(...tops);
  const tube = axle ? (axle.z_mm[nearest(0, axle.travel_mm)] ?? 0) - axle.diameter_mm : -60;
  const span = (top - tube) * scale.perMm;
  const rails = (top - Math.min(...(rail?.underside_z_mm ?? [0]))) * scale.perMm;
  const above = Math.max(Math.min(marked ? MARKED : NAME, height - rails - 8), NAME);
  // in a low band the rails make room for the names of features below them
  const from = Math.max(Math.min(Math.max((height - span) / 2 + 6, above), height - rails - NAMES_BELOW), -MOST_HIDDEN);
  return { z: (mm) => from + (top - mm) * scale.perMm, mm: (px) => top - (px - from) / scale.perMm };
}

type Props = {
  result: Evaluation;
  side: Side;
  scale: Scale;
  heights: Heights;
  travelMm: number;
  /** Full bump: a ghost of the tube is drawn there. */
  bumpMm: number;
  selected: string | null;
  select: (id: string) => void;
};

/** Side elevation of one rail, seen from the left: stock, what is taken away, what is added, the axle through travel. */
export const Elevation = memo(function Elevation({
  result,
  side,
  scale,
  heights,
  travelMm,
  bumpMm,
  selected,
  select,
}: Props) {
  const rail = result.rails.find((r) => r.side === side);
  const axle = result.axle.find((a) => a.side === side);
  if (!rail) return null;
  const at = (x: number, z: number) => [scale.x(x), heights.z(z)] as const;
  const low = rail.x_mm.map((x, i) => at(x, rail.underside_z_mm[i] ?? 0));
  const high = rail.x_mm.map((x, i) => at(x, rail.top_z_mm[i] ?? 0));
  const body = linePath([...low, ...[...high].reverse()], true);
  const parts = result.parts.filter((p) => p.side === side);
  const plates = parts.filter((p) => p.face === "outer" || p.face === "inner");
  const cuts = rail.cuts.map((cut) => outlinePath({ ...cut, closed: true }, at, scale.perMm));
  return (
    <g>
      {axle && <Tyre axle={axle} scale={scale} heights={heights} travelMm={travelMm} />}
      <path d={body} fill={paint("panel")} stroke={paint("ink")} strokeWidth="1.5" />
      {plates.map((part) => (
        <path
          key={part.id}
          d={outlinePath(part.outline, at, scale.perMm)}
          fill={part.role === "boxing" ? "none" : "url(#fill-added)"}
          fillOpacity={part.face === "inner" ? 0.5 : 1}
          stroke={paint("added")}
          strokeWidth={selected?.startsWith(part.id) ? 3 : 1.2}
          strokeDasharray={part.face === "inner" ? "7 4" : undefined}
          onPointerDown={() => select(part.id)}
        />
      ))}
      {rail.flange_plates.map(({ part, outline }) => (
        <path
          key={part}
          d={outlinePath(outline, at, scale.perMm)}
          fill="url(#fill-added)"
          stroke={paint("added")}
          strokeWidth={selected?.startsWith(part) ? 3 : 1.2}
          onPointerDown={() => select(part)}
        />
      ))}
      {rail.mounts?.map(({ operation, name, outline }) => (
        <path
          key={`${operation}${outline.vertices[0]?.x}${outline.vertices[0]?.y}`}
          d={outlinePath(outline, at, scale.perMm)}
          fill="url(#fill-added)"
          stroke={paint("added")}
          strokeWidth={selected?.startsWith(operation) ? 3 : 1.2}
          onPointerDown={() => select(operation)}
        >
          <title>{name}</title>
        </path>
      ))}
      {rail.crossings?.map(({ operation, name, outline }) => (
        <path
          key={`${operation}${name}${outline.vertices[0]?.x}`}
          d={outlinePath(outline, at, scale.perMm)}
          fill="url(#fill-added)"
          stroke={paint("added")}
          strokeWidth={selected?.startsWith(operation) ? 3 : 1.2}
          strokeDasharray="2 3"
          onPointerDown={() => select(operation)}
        >
          <title>{name}, from rail to rail</title>
        </path>
      ))}
      {rail.cuts.map((cut, i) => (
        <Cut
          key={cuts[i]}
          cut={cut}
          data={cuts[i] ?? ""}
          at={at}
          scale={scale}
          liner={linerOf(result, side)}
          id={`${side}-${i}`}
        />
      ))}
      {rail.built_cuts.map((cut) => (
        <path
          key={`built${cut.vertices[0]?.x}`}
          d={outlinePath(cut, at, scale.perMm)}
          fill="none"
          stroke={paint("touch")}
          strokeWidth="2.5"
          strokeDasharray="2 3"
        >
          <title>as built</title>
        </path>
      ))}
      {axle && <Ghost axle={axle} scale={scale} heights={heights} travelMm={bumpMm} />}
      {axle && <Tube axle={axle} scale={scale} heights={heights} travelMm={travelMm} />}
    </g>
  );
});

function linerOf(result: Evaluation, side: Side): number {
  return result.parts.find((p) => p.side === side && p.role === "liner")?.thickness_mm ?? 0;
}

type CutProps = {
  cut: Outline;
  data: string;
  at: (x: number, z: number) => readonly [number, number];
  scale: Scale;
  liner: number;
  id: string;
};

/** The opening, hatched as removed metal, with the liner inside it. */
function Cut({ cut, data, at, scale, liner, id }: CutProps) {
  return (
    <g>
      <clipPath id={`cut-${id}`}>
        <path d={data} />
      </clipPath>
      <path d={data} fill={paint("sheet")} />
      <path d={data} fill="url(#fill-removed)" opacity="0.55" />
      {liner > 0 && (
        <path
          d={outlinePath(cut, at, scale.perMm)}
          fill="none"
          stroke={paint("added")}
          strokeWidth={2 * liner * scale.perMm}
          clipPath={`url(#cut-${id})`}
        />
      )}
      <path
        d={outlinePath(cut, at, scale.perMm)}
        fill="none"
        stroke={paint("removed")}
        strokeWidth="2"
        strokeDasharray="6 3"
        data-line="CUT"
      />
    </g>
  );
}

type Moving = { axle: AxleDrawing; scale: Scale; heights: Heights; travelMm: number };

/** The axle tube where the travel bar holds it, at ride height as a ghost, and its clearance around it. */
function Tube({ axle, scale, heights, travelMm }: Moving) {
  const row = nearest(travelMm, axle.travel_mm);
  const ride = nearest(0, axle.travel_mm);
  const clear = axle.clearance_mm[row] ?? 0;
  const place = (i: number) => ({ cx: scale.x(axle.x_mm[i] ?? 0), cy: heights.z(axle.z_mm[i] ?? 0) });
  const radius = (axle.diameter_mm / 2) * scale.perMm;
  const near = clear < axle.needed_mm;
  return (
    <g data-part="axle-tube">
      {row !== ride && <circle {...place(ride)} r={radius} fill="none" stroke={paint("faint")} strokeDasharray="2 4" />}
      <circle
        {...place(row)}
        r={radius + axle.needed_mm * scale.perMm}
        fill="none"
        stroke={near ? paint("touch") : paint("faint")}
        strokeDasharray="4 4"
      />
      <circle
        {...place(row)}
        r={radius}
        fill={near ? "url(#fill-touch)" : paint("bench")}
        stroke={near ? paint("touch") : paint("ink")}
        strokeWidth="2"
      />
      <path
        d={`M${place(row).cx - 5} ${place(row).cy}h10M${place(row).cx} ${place(row).cy - 5}v10`}
        stroke={paint("ink")}
      />
    </g>
  );
}

/** The tube at full bump with its clearance: what the cut must leave free. */
function Ghost({ axle, scale, heights, travelMm }: Moving) {
  const row = nearest(travelMm, axle.travel_mm);
  const place = { cx: scale.x(axle.x_mm[row] ?? 0), cy: heights.z(axle.z_mm[row] ?? 0) };
  const radius = axle.diameter_mm / 2;
  return (
    <g fill="none" stroke={paint("faint")}>
      <circle {...place} r={radius * scale.perMm} />
      <circle {...place} r={(radius + axle.needed_mm) * scale.perMm} strokeDasharray="3 4" />
    </g>
  );
}

function Tyre({ axle, scale, heights, travelMm }: Moving) {
  if (axle.tyre_radius_mm === null) return null;
  const row = nearest(travelMm, axle.travel_mm);
  const [x, z] = [axle.x_mm[row] ?? 0, axle.z_mm[row] ?? 0];
  return (
    <circle
      cx={scale.x(x)}
      cy={heights.z(z)}
      r={axle.tyre_radius_mm * scale.perMm}
      fill="none"
      stroke={paint("rule")}
      strokeWidth="2"
      strokeDasharray="14 5"
    />
  );
}
