import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { nudge, showLength, snap } from "../units/show";
import type { Heights } from "./Elevation";
import type { Handle } from "./handles";
import type { Scale } from "./scale";
import { type Moves, useRawMoves } from "./useRawMoves";

type Props = { handle: Handle; scale: Scale; heights: Heights; locked: boolean };

const KEYS: Record<string, number> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

/** One handle: drag it, nudge it with arrows (Shift for eight marks), Enter goes to its field, Escape puts it back. */
export function HandleMark({ handle, scale, heights, locked }: Props) {
  const style = useBench((s) => s.style);
  const [act, drag, drop, abandon] = [
    useBench((s) => s.act),
    useBench((s) => s.drag),
    useBench((s) => s.drop),
    useBench((s) => s.abandon),
  ];
  /** Where the sheet lies on the screen, while the handle is held. */
  const held = useRef<DOMRect | null>(null);
  const set = (valueMm: number) => ({
    kind: "operation" as const,
    index: handle.index,
    value: handle.withValue(valueMm),
  });

  const onMove = (event: Moves) => {
    const sheet = held.current;
    if (!sheet) return;
    const x = scale.station(event.clientX - sheet.left);
    const z = heights.mm(event.clientY - sheet.top);
    drag(set(snap(handle.valueAt(x, z), style)), event.timeStamp);
  };
  const raw = useRawMoves(onMove);
  const onDown = (event: PointerEvent<SVGGElement>) => {
    if (locked) return;
    event.stopPropagation();
    held.current = event.currentTarget.ownerSVGElement?.getBoundingClientRect() ?? null;
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
      document.querySelector<HTMLInputElement>(`[data-field="${handle.field}"]`)?.focus();
    } else if (event.key === "Escape") {
      held.current = null;
      abandon();
    } else if (step && !locked) {
      event.preventDefault();
      const next = handle.valueMm + step * nudge(style) * (event.shiftKey ? 8 : 1);
      act(set(Math.round(next * 1e6) / 1e6));
    }
  };
  const [cx, cy] = [scale.x(handle.x), heights.z(handle.z)];
  const arrow = handle.axis === "x" ? "M-9 0l5 -4v8zM9 0l-5 -4v8z" : "M0 -9l-4 5h8zM0 9l-4 -5h8z";
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={handle.label}
      aria-valuenow={handle.valueMm}
      aria-valuetext={showLength(handle.valueMm, style)}
      aria-orientation={handle.axis === "x" ? "horizontal" : "vertical"}
      data-handle={handle.id}
      transform={`translate(${cx.toFixed(1)} ${cy.toFixed(1)})`}
      style={{
        cursor: locked ? "default" : handle.axis === "x" ? "ew-resize" : "ns-resize",
        touchAction: "none",
      }}
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
      <circle r="22" fill="transparent" />
      <circle r="6" fill={paint("sheet")} stroke={paint("chalk")} strokeWidth="2.5" />
      <path d={arrow} transform="scale(1.5)" fill={paint("chalk")} />
    </g>
  );
}
