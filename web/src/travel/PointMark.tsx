import { type KeyboardEvent, memo, type PointerEvent, useRef } from "react";
import type { BodyPoint, Grip } from "../api/types";
import { paint } from "../app/theme";
import type { Path } from "../draft/document";
import { useBench, usePick } from "../draft/store";
import { type Moves, useRawMoves } from "../drawing/useRawMoves";
import { nudge, snap } from "../units/show";
import { pathOf } from "./paths";
import { samePoint } from "./pose";
import { type Vec, vec } from "./space";
import type { PaperView } from "./views";

type Props = {
  view: PaperView;
  grip: Grip;
  hub: Vec;
  place: (p: BodyPoint) => Vec;
  locked: boolean;
  /** The link's other end at ride height, where its length is held. */
  about?: Vec | undefined;
};

/** Arrow keys as what they move in a view: across and up. */
const KEYS: Record<string, readonly [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** A hard point: drag it in any view, nudge it with arrows, Enter goes to its fields, Escape puts it back. */
export const PointMark = memo(function PointMark({ view, grip, hub, place, locked, about }: Props) {
  const { act, drag, drop, abandon, put, selected } = usePick("act", "drag", "drop", "abandon", "put", "selected");
  const style = useBench((s) => s.style);
  /** From the middle of the mark, as it was drawn when the hand took it, to the pointer. */
  const held = useRef<readonly [number, number] | null>(null);
  const now = place(grip.at);
  const [cx, cy] = view.at(now);
  const rest: Vec = [grip.at.x_mm, grip.at.y_mm, grip.at.z_mm];
  const path: Path = ["design", ...pathOf(grip.path)];
  const onAxle = grip.at.body >= 0;
  /** The point as the document holds it: from the hubs where it rides on the axle, else without what the plan moved. */
  const set = (p: Vec) => {
    const off = onAxle ? hub : vec(grip.shift);
    const [x, y, z] = [p[0] - off[0], p[1] - off[1], p[2] - off[2]];
    return { kind: "set" as const, path, value: { x_mm: tidy(x), y_mm: tidy(y), z_mm: tidy(z) } };
  };
  const moved = (p: Vec): Vec => {
    const next: [number, number, number] = [...rest];
    // what the pointer moved in the pose that is shown is moved at ride height
    for (const k of [view.across, view.up]) next[k] = snap(rest[k] + p[k] - now[k], style);
    return about ? swung(next, about, rest) : next;
  };
  const onMove = (event: Moves) => {
    const off = held.current;
    if (off) drag(set(moved(view.back(event.clientX - off[0], event.clientY - off[1], now))), event.timeStamp);
  };
  const raw = useRawMoves(onMove);
  const onDown = (event: PointerEvent<SVGGElement>) => {
    put({ selected: grip.path });
    if (locked) return;
    event.stopPropagation();
    held.current = [event.clientX - cx, event.clientY - cy];
    event.currentTarget.setPointerCapture(event.pointerId);
    raw.from(event.currentTarget);
  };
  const onUp = () => {
    raw.stop();
    if (held.current) drop();
    held.current = null;
  };
  const onKey = (event: KeyboardEvent<SVGGElement>) => {
    const step = KEYS[event.key];
    if (event.key === "Enter") {
      event.preventDefault();
      document.querySelector<HTMLInputElement>(`[data-field="/${path.join("/")}/x_mm"]`)?.focus();
    } else if (event.key === "Escape") {
      held.current = null;
      abandon();
    } else if (step && !locked) {
      event.preventDefault();
      const by = nudge(style) * (event.shiftKey ? 8 : 1);
      const next: [number, number, number] = [...rest];
      next[view.across] += step[0] * by;
      next[view.up] += view.sense * step[1] * by;
      act(set(about ? swung(next, about, rest) : next));
    }
  };
  const half = selected === grip.path ? 7 : 5;
  const [x, y] = [tenth(cx), tenth(cy)];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${grip.name}, ${onAxle ? "axle" : "frame"} end, ${view.words}`}
      data-point={`${grip.path}@${view.name}`}
      style={{ cursor: locked ? "default" : "move", touchAction: "none" }}
      onPointerDown={onDown}
      onPointerMove={raw.known ? undefined : onMove}
      onPointerUp={onUp}
      onPointerCancel={() => {
        raw.stop();
        held.current = null;
        abandon();
      }}
      onKeyDown={onKey}
    >
      <circle cx={x} cy={y} r="15" fill="transparent" />
      {onAxle ? (
        <circle cx={x} cy={y} r={half} fill={paint("sheet")} stroke={paint("chalk")} strokeWidth="2.5" />
      ) : (
        <rect
          x={x - half}
          y={y - half}
          width={2 * half}
          height={2 * half}
          fill={paint("sheet")}
          stroke={paint("chalk")}
          strokeWidth="2.5"
        />
      )}
    </g>
  );
}, sameMark);

/** A point that stays where it is is not drawn again. */
function sameMark(a: Props, b: Props): boolean {
  if (String(a.about) !== String(b.about)) return false;
  const still = a.view === b.view && a.place === b.place && a.locked === b.locked && String(a.hub) === String(b.hub);
  return still && a.grip.path === b.grip.path && a.grip.name === b.grip.name && samePoint(a.grip.at, b.grip.at);
}

/** The point on the way to `next` that is as far from the other end as `rest` is. */
function swung(next: Vec, about: Vec, rest: Vec): Vec {
  const long = Math.hypot(rest[0] - about[0], rest[1] - about[1], rest[2] - about[2]);
  const [x, y, z] = [next[0] - about[0], next[1] - about[1], next[2] - about[2]];
  const far = Math.hypot(x, y, z);
  if (far < 1e-6) return rest;
  const share = long / far;
  return [about[0] + x * share, about[1] + y * share, about[2] + z * share];
}

const tenth = (px: number) => Math.round(px * 10) / 10;
const tidy = (mm: number) => Math.round(mm * 1e4) / 1e4;
