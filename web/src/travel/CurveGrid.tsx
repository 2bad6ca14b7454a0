import { scaleLinear } from "d3-scale";
import { memo, type PointerEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { AxleTravel, Style } from "../api/types";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { useSize } from "../drawing/useSize";
import { beside, showFigure } from "../units/figure";
import { showLength, showNumber } from "../units/show";
import { valueAtTravel } from "./pose";

export type Curve = AxleTravel["curves"][number];

/** Figures as small curves over travel or steer, the place where things stand marked in each. */
export function CurveGrid({ curves, ...along }: Along & { curves: readonly Curve[] }) {
  return (
    <div className="curves">
      {curves.map((curve) => (
        <One key={curve.id} curve={curve} {...along} />
      ))}
    </div>
  );
}

/** A travel beside its end of the axis. */
export const travelLabel = (mm: number) => showLength(mm, useBench.getState().style);

const H = 96;
/** Room for the figures of both axes. */
const LEFT = 46;
const BELOW = 18;
const TICKS = 3;
const ANCHORS = ["start", "middle", "end"] as const;
const MM_PER_INCH = 25.4;

type Along = {
  /** What the curves run over, and where on it things stand. */
  along: number[];
  /** The same in words. */
  over: string;
  at: number;
  go: (at: number) => void;
  /** A place along, told beside its end of the axis. */
  endLabel: (place: number) => string;
  /** The figure as it was, at the same places. */
  beforeOf?: (curve: Curve) => (number | null)[] | null;
};
type OneProps = Along & { curve: Curve };

/** A curve out of sight is not drawn again while a hand drags. */
function One(props: OneProps) {
  const style = useBench((s) => s.style);
  const frame = useRef<HTMLDivElement>(null);
  const dragging = useBench((s) => s.gesture !== null);
  const seen = useInSight(frame);
  const held = useRef(props);
  if (!dragging || seen) held.current = props;
  return (
    <div ref={frame} className="curve" title={props.curve.words + endsTold(props.curve, style)}>
      <Drawn frame={frame} {...held.current} />
    </div>
  );
}

/** Whether any of an element is in sight. */
function useInSight(ref: RefObject<HTMLElement | null>): boolean {
  const [seen, setSeen] = useState(true);
  useEffect(() => {
    if (!ref.current) return;
    const watch = new IntersectionObserver(([entry]) => entry && setSeen(entry.isIntersecting));
    watch.observe(ref.current);
    return () => watch.disconnect();
  }, [ref]);
  return seen;
}

const Drawn = memo(function Drawn({
  curve,
  along,
  over,
  at,
  go,
  beforeOf,
  endLabel,
  frame,
}: OneProps & { frame: RefObject<HTMLDivElement | null> }) {
  const before = beforeOf?.(curve) ?? null;
  const { width } = useSize(frame);
  const style = useBench((s) => s.style);
  const [pointed, setPointed] = useState<number | null>(null);
  const known = [...curve.values, ...(before ?? [])].filter((v): v is number => v !== null);
  const [low, high] = withEnds([Math.min(...known), Math.max(...known)], curve.allowed);
  const pad = Math.max((high - low) * 0.02, Math.abs(high) * 1e-3, 1e-6);
  const [first, last] = [along[0] ?? 0, along.at(-1) ?? 1];
  const per = inShown(curve.unit, style);
  const own = scaleLinear()
    .domain([(low - pad) / per, (high + pad) / per])
    .nice(TICKS)
    .range([H - BELOW, 6]);
  const across = scaleLinear()
    .domain([first, last])
    .range([LEFT, width - 8]);
  const x = (place: number) => across(place);
  const y = (v: number) => own(v / per);
  const here = valueAtTravel(along, curve.values, pointed ?? at);
  const placeAt = (event: PointerEvent) => Math.min(Math.max(across.invert(event.nativeEvent.offsetX), first), last);
  return (
    <>
      <p>
        <span>{curve.name}</span>
        <b style={pointed === null ? undefined : { color: paint("chalk") }}>
          <Value curve={curve} value={here} />
        </b>
      </p>
      {width > 0 && (
        <svg
          width={width}
          height={H}
          role="img"
          aria-label={`${curve.name} ${over}${endsTold(curve, style)}`}
          style={{ display: "block" }}
          onPointerDown={(e) => go(placeAt(e))}
          onPointerMove={(e) => setPointed(placeAt(e))}
          onPointerLeave={() => setPointed(null)}
        >
          <g fill={paint("faint")} style={{ fontSize: 12 }} pointerEvents="none">
            {own.ticks(TICKS).map((tick) => (
              <g key={tick}>
                <line x1={LEFT} x2={width - 8} y1={own(tick)} y2={own(tick)} stroke={paint("rule")} />
                <text x={LEFT - 4} y={own(tick) + 4} textAnchor="end">
                  {showNumber(tick, 4)}
                </text>
              </g>
            ))}
            {[first, 0, last].map((place, i) => (
              <text key={place} x={x(place)} y={H - 4} textAnchor={ANCHORS[i] ?? "middle"}>
                {place === 0 ? "0" : endLabel(place)}
              </text>
            ))}
            <path d={`M${LEFT} 4V${H - BELOW}H${width - 8}`} fill="none" stroke={paint("faint")} />
          </g>
          <Beyond allowed={curve.allowed} y={y} width={width} />
          <line x1={x(0)} x2={x(0)} y2={H - BELOW} stroke={paint("rule")} />
          {low < 0 && high > 0 && (
            <line x1={LEFT} x2={width - 8} y1={y(0)} y2={y(0)} stroke={paint("faint")} strokeDasharray="4 3" />
          )}
          {before &&
            runs(before, along, x, y).map(({ from, points }) => (
              <polyline key={from} points={points} fill="none" stroke={paint("faint")} strokeDasharray="5 3" />
            ))}
          {runs(curve.values, along, x, y).map(({ from, points }) => (
            <polyline key={from} points={points} fill="none" stroke={paint("ink")} strokeWidth="1.8" />
          ))}
          <line
            x1={x(pointed ?? at)}
            x2={x(pointed ?? at)}
            y2={H - BELOW}
            stroke={paint("chalk")}
            strokeDasharray="1 4"
            strokeWidth="1.5"
          />
          {here !== null && (
            <line
              x1={x(pointed ?? at)}
              x2={x(pointed ?? at)}
              y1={y(here)}
              y2={y(here)}
              stroke={paint("chalk")}
              strokeWidth="7"
              strokeLinecap="round"
            />
          )}
        </svg>
      )}
    </>
  );
});

/** Farther off than so many times the curve's own height an end is told and not drawn. */
const FAR = 3;

/** The stretch of values to draw: the curve's own, out to the ends that its parts set where they lie near. */
function withEnds([low, high]: [number, number], allowed: Curve["allowed"]): [number, number] {
  const reach = FAR * Math.max(high - low, 1e-6);
  const least = allowed?.least ?? low;
  const most = allowed?.most ?? high;
  return [low - least < reach ? Math.min(low, least) : low, most - high < reach ? Math.max(high, most) : high];
}

/** Where no part lets the figure go. */
function Beyond({ allowed, y, width }: { allowed: Curve["allowed"]; y: (v: number) => number; width: number }) {
  const [top, bottom] = [6, H - BELOW];
  const most = allowed?.most == null ? top : Math.min(y(allowed.most), bottom);
  const least = allowed?.least == null ? bottom : Math.max(y(allowed.least), top);
  const band = (from: number, to: number, edge: number) =>
    to > from && (
      <g>
        <rect
          x={LEFT}
          width={width - 8 - LEFT}
          y={from}
          height={to - from}
          fill={paint("removed")}
          fillOpacity="0.14"
        />
        <line x1={LEFT} x2={width - 8} y1={edge} y2={edge} stroke={paint("removed")} strokeWidth="1.5" />
      </g>
    );
  return (
    <>
      {band(top, most, most)}
      {band(least, bottom, least)}
    </>
  );
}

/** What the parts allow, in words. */
function endsTold({ allowed, unit }: Curve, style: Style): string {
  const told = (value: number) => showFigure(value, unit, style);
  if (allowed?.least != null && allowed.most != null)
    return `, allowed ${told(allowed.least)} to ${told(allowed.most)}`;
  if (allowed?.most != null) return `, allowed to ${told(allowed.most)}`;
  return allowed?.least != null ? `, allowed from ${told(allowed.least)}` : "";
}

/** How much of the core's unit one of the axis's figures is. */
function inShown(unit: string, style: Style): number {
  if (unit === "mm") return style === "mm" ? 1 : MM_PER_INCH;
  return 1 / beside(1, unit, style).value;
}

/** Every stretch that exists: where it begins, and its points as a polyline has them. */
function runs(
  values: readonly (number | null)[],
  travel: number[],
  x: (mm: number) => number,
  y: (v: number) => number,
): { from: number; points: string }[] {
  const out: { from: number; points: string }[] = [];
  let open = false;
  values.forEach((value, i) => {
    if (value !== null) {
      if (!open) out.push({ from: i, points: "" });
      const run = out.at(-1);
      if (run) run.points += `${x(travel[i] ?? 0).toFixed(1)},${y(value).toFixed(1)} `;
    }
    open = value !== null;
  });
  return out;
}

export function Value({ curve, value }: { curve: Curve; value: number | null }) {
  const style = useBench((s) => s.style);
  return <>{value === null ? "none" : showFigure(value, curve.unit, style)}</>;
}
