import { memo, type RefObject, useEffect, useRef, useState } from "react";
import type { AxleTravel } from "../api/types";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { useSize } from "../drawing/useSize";
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

const H = 58;

type Along = {
  /** What the curves run over, and where on it things stand. */
  along: number[];
  /** The same in words. */
  over: string;
  at: number;
  go: (at: number) => void;
  /** The figure as it was, at the same places. */
  beforeOf?: (curve: Curve) => (number | null)[] | null;
};
type OneProps = Along & { curve: Curve };

/** A curve out of sight is not drawn again while a hand drags. */
function One(props: OneProps) {
  const frame = useRef<HTMLDivElement>(null);
  const dragging = useBench((s) => s.gesture !== null);
  const seen = useInSight(frame);
  const held = useRef(props);
  if (!dragging || seen) held.current = props;
  return (
    <div ref={frame} className="curve" title={props.curve.words}>
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
  frame,
}: OneProps & { frame: RefObject<HTMLDivElement | null> }) {
  const before = beforeOf?.(curve) ?? null;
  const { width } = useSize(frame);
  const known = [...curve.values, ...(before ?? [])].filter((v): v is number => v !== null);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const pad = Math.max((high - low) * 0.12, Math.abs(high) * 1e-3, 1e-6);
  const [first, last] = [along[0] ?? 0, along.at(-1) ?? 1];
  const x = (mm: number) => ((mm - first) / (last - first)) * width;
  const y = (v: number) => H - 4 - ((v - low + pad) / (high - low + 2 * pad)) * (H - 8);
  const here = valueAtTravel(along, curve.values, at);
  return (
    <>
      <p>
        <span>{curve.name}</span>
        <b>
          <Value curve={curve} value={here} />
        </b>
      </p>
      {width > 0 && (
        <svg
          width={width}
          height={H}
          role="img"
          aria-label={`${curve.name} ${over}`}
          style={{ display: "block" }}
          onPointerDown={(e) => go(first + (e.nativeEvent.offsetX / width) * (last - first))}
        >
          <line x1={x(0)} x2={x(0)} y2={H} stroke={paint("rule")} />
          {low < 0 && high > 0 && <line x2={width} y1={y(0)} y2={y(0)} stroke={paint("rule")} strokeDasharray="4 3" />}
          {before &&
            runs(before, along, x, y).map(({ from, points }) => (
              <polyline key={from} points={points} fill="none" stroke={paint("removed")} strokeDasharray="5 3" />
            ))}
          {runs(curve.values, along, x, y).map(({ from, points }) => (
            <polyline key={from} points={points} fill="none" stroke={paint("ink")} strokeWidth="1.8" />
          ))}
          <line x1={x(at)} x2={x(at)} y2={H} stroke={paint("chalk")} strokeDasharray="1 4" strokeWidth="1.5" />
          {here !== null && (
            <line
              x1={x(at)}
              x2={x(at)}
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
  if (value === null) return <>none</>;
  return <>{curve.unit === "mm" ? showLength(value, style) : `${showNumber(value, 3)} ${curve.unit}`}</>;
}
