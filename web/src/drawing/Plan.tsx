import { memo } from "react";
import type { Evaluation, Part, RailDrawing, Side } from "../api/types";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import type { Heights } from "./Elevation";
import { linePath } from "./outlinePath";
import { between, nearest, plannedX, type Scale } from "./scale";

type Props = {
  result: Evaluation;
  scale: Scale;
  top: number;
  height: number;
  side: Side;
  travelMm: number;
  selected: string | null;
};

/** Plan of both rails at true scale; the empty middle of the frame is broken out. The driver's right is up. */
export const Plan = memo(function Plan({ result, scale, top, height, side, travelMm, selected }: Props) {
  const middle = top + height / 2;
  const both = roomForBoth(result.rails, scale, height);
  return (
    <g>
      {both && <Break y={middle} scale={scale} />}
      <Ties rail={result.rails.find((r) => r.side === side)} scale={scale} top={top} height={height} />
      {result.axle.map((axle) => {
        const row = nearest(travelMm, axle.travel_mm);
        const half = (axle.diameter_mm / 2) * scale.perMm;
        const x = scale.x(axle.x_mm[row] ?? 0);
        const up = axle.side === "right";
        return (
          <path
            key={axle.side}
            d={`M${x - half} ${middle}V${up ? top : top + height}M${x + half} ${middle}V${up ? top : top + height}`}
            stroke={paint("faint")}
            strokeDasharray="2 4"
          />
        );
      })}
      {(both ? result.rails : result.rails.filter((rail) => rail.side === side)).map((rail) => (
        <PlanRail
          key={rail.side}
          rail={rail}
          parts={result.parts.filter((p) => p.side === rail.side)}
          scale={scale}
          across={acrossOf(rail, scale, top, height, both)}
          strong={rail.side === side}
          selected={selected}
        />
      ))}
    </g>
  );
});

/** Room beside a rail for its plates. */
const BESIDE = 24;

/** Whether the band has room for both rails side by side; else only the open one is drawn. */
export function roomForBoth(rails: RailDrawing[], scale: Scale, height: number): boolean {
  const wide = (rail: RailDrawing) =>
    Math.max(...rail.web_y_mm.map((web, i) => Math.abs(web - (rail.tip_y_mm[i] ?? 0))));
  return rails.every((rail) => wide(rail) * scale.perMm + BESIDE < height / 2);
}

/** Box pieces that stand between two ends of a rail fill its width. */
const PIECE = /^(post|riser|insert|jog-)/;

type Across = (yMm: number) => number;

/** Pixels across the sheet for one rail: its own middle sits in its own half of the band. */
function acrossOf(rail: RailDrawing, scale: Scale, top: number, height: number, both: boolean): Across {
  return planOf(rail, scale, top, height, both).z;
}

/** Across to pixels and back, for one rail: the middle of the rail where most of it runs. */
export function planOf(rail: RailDrawing, scale: Scale, top: number, height: number, both: boolean): Heights {
  const last = rail.web_y_mm.length - 1;
  const middle = ((rail.web_y_mm[last] ?? 0) + (rail.tip_y_mm[last] ?? 0)) / 2;
  const centre = top + height * (both ? (rail.side === "right" ? 0.24 : 0.76) : 0.5);
  return { z: (y) => centre - (y - middle) * scale.perMm, mm: (px) => middle - (px - centre) / scale.perMm };
}

type RailProps = {
  rail: RailDrawing;
  parts: Part[];
  scale: Scale;
  across: Across;
  strong: boolean;
  selected: string | null;
};

function PlanRail({ rail, parts, scale, across, strong, selected }: RailProps) {
  const web = rail.x_mm.map((x, i) => [scale.x(x), across(rail.web_y_mm[i] ?? 0)] as const);
  const tip = rail.x_mm.map((x, i) => [scale.x(x), across(rail.tip_y_mm[i] ?? 0)] as const);
  const shown = scale.station(8);
  const middle = (between(shown, rail.x_mm, rail.web_y_mm) + between(shown, rail.x_mm, rail.tip_y_mm)) / 2;
  const inward = Math.sign((rail.tip_y_mm[0] ?? 0) - (rail.web_y_mm[0] ?? 0));
  const band = (x0: number, x1: number, from: number, to: number) => {
    const [a, b] = [across(from), across(to)];
    return { x: scale.x(x0), width: (x1 - x0) * scale.perMm, y: Math.min(a, b), height: Math.abs(a - b) };
  };
  return (
    <g opacity={strong ? 1 : 0.7}>
      <path
        d={linePath([...web, ...[...tip].reverse()], true)}
        fill={paint("panel")}
        stroke={paint("ink")}
        strokeWidth={strong ? 1.5 : 1}
      />
      <path d={linePath(web)} fill="none" stroke={paint("ink")} strokeWidth="3" />
      {rail.cuts.map((cut) => {
        const [first, last] = [cut.vertices[0]?.x ?? 0, cut.vertices.at(-1)?.x ?? 0];
        const y = between(first, rail.x_mm, rail.web_y_mm);
        const t = between(first, rail.x_mm, rail.tip_y_mm);
        return (
          <rect
            key={first}
            {...band(first, last, y, t)}
            fill="url(#fill-removed)"
            opacity="0.6"
            stroke={paint("removed")}
            strokeDasharray="6 3"
          />
        );
      })}
      {parts.map((part) => {
        const xs = part.outline.vertices.map((v) => v.x);
        const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
        const y = between(x0, rail.x_mm, rail.web_y_mm);
        const t = between(x0, rail.x_mm, rail.tip_y_mm);
        const thick = inward * part.thickness_mm;
        if (part.face === "axle" || part.face === "across" || part.role === "liner" || part.role.startsWith("cap-side"))
          return null;
        const box =
          part.face === "outer" && !PIECE.test(part.role)
            ? band(x0, x1, y - thick, y)
            : part.face === "inner"
              ? band(x0, x1, t, t + thick)
              : band(x0, x1, y, t);
        return (
          <rect
            key={part.id}
            {...box}
            fill={part.face === "top" ? "none" : "url(#fill-added)"}
            stroke={paint("added")}
            strokeWidth={selected?.startsWith(part.id) ? 3 : 1}
            strokeDasharray={part.face === "top" ? "7 4" : undefined}
          />
        );
      })}
      <text
        x={8}
        y={across(middle) + (60 * scale.perMm > 24 ? 4 : rail.side === "right" ? -8 : 17)}
        fill={paint("faint")}
        style={{ fontSize: 12 }}
      >
        {rail.side} rail, plan
      </text>
    </g>
  );
}

/** Drafting break: the space between the rails is not to scale. */
function Break({ y, scale }: { y: number; scale: Scale }) {
  const teeth = Array.from({ length: Math.ceil(scale.width / 44) + 1 }, () => `h30l4 -5l6 10l4 -5`).join("");
  return <path d={`M0 ${y}${teeth}`} fill="none" stroke={paint("rule")} />;
}

/** Crossmembers between the rails, broken out with the middle of the frame. */
function Ties({ rail, scale, top, height }: { rail?: RailDrawing; scale: Scale; top: number; height: number }) {
  const draft = useBench((s) => s.history.now);
  const changes = draft.design.operations.filter((op) => op.kind === "crossmember");
  const place = (anchor: string, offset: number) =>
    (draft.survey.features.find((f) => f.id === anchor)?.x_mm ?? 0) + offset;
  const gone = changes.filter((c) => c.act !== "add").map((c) => c.target_id);
  const stays = (draft.survey.crossmembers ?? []).filter((c) => !gone.includes(c.id));
  const made = changes
    .filter((c) => c.act !== "remove")
    .map((c) => {
      const old = draft.survey.crossmembers?.find((t) => t.id === c.target_id);
      const x_mm = c.act === "replace" && old ? old.x_mm : place(c.place.anchor_id, c.place.offset_mm ?? 0);
      return { ...(c.act === "move" && old ? old : c), id: c.id, name: c.name, x_mm };
    });
  const added = [...(draft.design.crossmembers ?? []), ...made];
  const crossing = (rail?.crossings ?? []).map(({ operation, name, outline }) => {
    const xs = outline.vertices.map((v) => scale.x(v.x));
    return { name, key: `${operation}${name}${xs[0]}`, from: Math.min(...xs), to: Math.max(...xs) };
  });
  const [near, far] = [top + height * 0.24, top + height * 0.76];
  return (
    <g fill="none">
      {crossing.map(({ name, key, from, to }) => (
        <path
          key={key}
          stroke={paint("added")}
          strokeDasharray="2 3"
          d={`M${from} ${near}V${far}M${to} ${near}V${far}`}
        >
          <title>{name}</title>
        </path>
      ))}
      {[...stays, ...added].map((tie) => {
        const half = ((tie.profile === "tube" ? tie.height_mm : tie.width_mm) / 2) * scale.perMm;
        const x = scale.x(plannedX(rail, tie.x_mm));
        return (
          <path
            key={`${tie.id}${tie.x_mm}`}
            stroke={paint(added.includes(tie) ? "added" : "faint")}
            d={`M${x - half} ${near}V${far}M${x + half} ${near}V${far}`}
          >
            <title>{tie.name} crossmember</title>
          </path>
        );
      })}
    </g>
  );
}
