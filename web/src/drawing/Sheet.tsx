import { Box } from "@chakra-ui/react";
import { type PointerEvent, useCallback, useEffect, useMemo, useRef } from "react";
import type { RailDrawing } from "../api/types";
import { useMay } from "../app/session";
import { paint } from "../app/theme";
import type { Draft } from "../draft/document";
import { shownDraft, useBench, usePick } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { showLength } from "../units/show";
import { Deflected } from "./Deflected";
import { Dimensions } from "./Dimensions";
import { Elevation, type Heights, heightsOf } from "./Elevation";
import { Features } from "./Features";
import { Ghost } from "./Ghost";
import { HandleMark } from "./HandleMark";
import { HeightScale } from "./HeightScale";
import { anchorOf, type Handle, handlesOf, planHandlesOf } from "./handles";
import { outlinePath } from "./outlinePath";
import { Patterns } from "./Patterns";
import { Plan, planOf, roomForBoth } from "./Plan";
import { PlannedHoles } from "./PlannedHoles";
import { plannedX, type Scale, scaleOf } from "./scale";
import { TAPE_H, Tape } from "./Tape";
import { useSize } from "./useSize";
import { useLooking } from "./view";

const PLAN_SHARE = 0.36;
/** About what the words of the section's place take, pixels. */
const SECTION_W = 230;
/** From farther off the lines of what is marked off would lie on each other, pixels a mm. */
const LEAST_MARKED = 0.3;

/** The sheet: side elevation above plan on one station scale, a tape between them. */
export function Sheet({ handles = true }: { handles?: boolean }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const { view, hook, zoom, pan } = useLooking();
  const { result, stale, draft: evaluated, shownAt } = useShown();
  const draft = useBench(shownDraft);
  const { side, travelMm, stationMm, selected, style, put, gesture } = usePick(
    "side",
    "travelMm",
    "stationMm",
    "selected",
    "style",
    "put",
    "gesture",
  );
  const may = useMay();
  /** Pointers that are down on the sheet itself: one pans, two pinch. */
  const fingers = useRef(new Map<number, number>());
  const tapped = useRef<{ x: number; y: number } | null>(null);
  const scale = useMemo(() => scaleOf(view, Math.max(width, 1)), [view, width]);
  const select = useCallback((id: string) => put({ selected: id }), [put]);
  useWheel(frame, (event) => {
    const left = frame.current?.getBoundingClientRect().left ?? 0;
    if (event.ctrlKey || Math.abs(event.deltaY) > Math.abs(event.deltaX)) {
      zoom(event.deltaY > 0 ? 1.12 : 1 / 1.12, scale.station(event.clientX - left));
    } else pan(event.deltaX / scale.perMm);
  });
  const planH = Math.round(height * (height < 400 ? 0.3 : PLAN_SHARE));
  const tapeY = height - planH - TAPE_H;
  const held = useRef<Heights | null>(null);
  const settled = useMemo(() => heightsOf(tapeY, scale, result, side, handles), [tapeY, scale, result, side, handles]);
  const heights = gesture && held.current ? held.current : settled;
  held.current = heights;
  const hooked = hook ?? draft.survey.datum?.feature_id ?? "";
  const onDown = (event: PointerEvent<SVGSVGElement>) => {
    fingers.current.set(event.pointerId, event.clientX);
    tapped.current = { x: event.clientX, y: event.clientY };
  };
  const onMove = (event: PointerEvent<SVGSVGElement>) => {
    const before = fingers.current.get(event.pointerId);
    if (before === undefined || event.buttons !== 1) return;
    const other = [...fingers.current].find(([id]) => id !== event.pointerId)?.[1];
    fingers.current.set(event.pointerId, event.clientX);
    if (other === undefined) return pan((before - event.clientX) / scale.perMm);
    const [spread, now] = [Math.abs(before - other), Math.abs(event.clientX - other)];
    const left = frame.current?.getBoundingClientRect().left ?? 0;
    if (spread > 10 && now > 10) zoom(spread / now, scale.station((event.clientX + other) / 2 - left));
  };
  const onUp = (event: PointerEvent<SVGSVGElement>) => {
    fingers.current.delete(event.pointerId);
  };
  const rail = result?.rails.find((r) => r.side === side);
  const zeroMm = plannedX(rail, anchorOf(draft, hooked));
  /** A tap that did not move cuts the section there. */
  const cutHere = (event: PointerEvent<SVGSVGElement>) => {
    const from = tapped.current;
    tapped.current = null;
    if (!from || fingers.current.size > 1 || Math.hypot(event.clientX - from.x, event.clientY - from.y) > 4) return;
    const left = frame.current?.getBoundingClientRect().left ?? 0;
    put({ stationMm: scale.station(event.clientX - left) });
  };
  /** Near the right edge the section's place is told to the left of its line. */
  const late = scale.x(stationMm) > width - SECTION_W;
  const at = (x: number, z: number) => [scale.x(x), heights.z(z)] as const;
  const preview = gesture && evaluated && result ? previewShift(draft, evaluated) : null;
  return (
    <Box ref={frame} position="relative" height="100%" bg="sheet" overflow="hidden" minH="0">
      {result && width > 0 && (
        <svg
          width={width}
          height={height}
          aria-label="Sheet: side elevation above plan"
          data-stale={stale}
          data-shown-at={shownAt}
          style={{
            display: "block",
            touchAction: handles ? "none" : "pan-y",
            userSelect: "none",
            opacity: stale && !gesture ? 0.75 : 1,
          }}
          onPointerDown={onDown}
          onPointerMove={onMove}
          onPointerUp={(event) => {
            cutHere(event);
            onUp(event);
          }}
          onPointerLeave={onUp}
          onPointerCancel={onUp}
        >
          <Patterns />
          <clipPath id="elevation">
            <rect width={width} height={Math.max(tapeY, 0)} />
          </clipPath>
          <g clipPath="url(#elevation)">
            <Elevation
              result={result}
              side={side}
              scale={scale}
              heights={heights}
              travelMm={travelMm}
              bumpMm={draft.design.targets.bump_mm}
              selected={selected}
              select={select}
            />
            <Ghost side={side} at={at} perMm={scale.perMm} />
            {handles && !gesture && scale.perMm > LEAST_MARKED && (
              <Marked rail={rail} open={openOperation(draft, selected)?.id} at={at} />
            )}
            {preview && (
              <g transform={`translate(${preview.dx * scale.perMm} ${-preview.dz * scale.perMm})`}>
                {result.rails
                  .filter((r) => r.side === side)
                  .flatMap((r) => r.cuts)
                  .map((cut) => (
                    <path
                      key={cut.vertices[0]?.x}
                      d={outlinePath(cut, at, scale.perMm)}
                      fill="none"
                      stroke={paint("chalk")}
                      strokeWidth="2"
                      strokeDasharray="3 3"
                    />
                  ))}
              </g>
            )}
          </g>
          <Features survey={draft.survey} rail={rail} side={side} scale={scale} heights={heights} tapeY={tapeY} />
          <PlannedHoles draft={draft} rail={rail} side={side} scale={scale} heights={heights} />
          <Deflected result={result} side={side} scale={scale} heights={heights} />
          <Plan
            result={result}
            scale={scale}
            top={tapeY + TAPE_H}
            height={planH}
            side={side}
            travelMm={travelMm}
            selected={selected}
          />
          {handles && rail && !gesture && scale.perMm > LEAST_MARKED && (
            <MarkedFromAbove
              rail={rail}
              rails={result.rails}
              open={openOperation(draft, selected)?.id}
              scale={scale}
              top={tapeY + TAPE_H}
              height={planH}
            />
          )}
          <HeightScale heights={heights} perMm={scale.perMm} bottom={tapeY} style={style} />
          <Tape scale={scale} zeroMm={zeroMm} style={style} y={tapeY} />
          <path
            d={`M${scale.x(stationMm)} 0V${height}`}
            stroke={paint("chalk")}
            strokeDasharray="1 5"
            strokeWidth="1.5"
          />
          {[8, height - 9].map((y) => (
            <SectionMark key={y} x={scale.x(stationMm)} y={y} named={y > 8} />
          ))}
          <text x={10} y={18} fill={paint("faint")} style={{ fontSize: 13 }}>
            {side} rail, seen from the left, front to the left
          </text>
          <text
            x={scale.x(stationMm) + (late ? -6 : ARROW + 16)}
            y={height - 5}
            textAnchor={late ? "end" : "start"}
            fill={paint("chalk")}
            className="halo"
            style={{ fontSize: 12 }}
          >
            section {showLength(Math.abs(stationMm - zeroMm), style)}
            {stationMm < zeroMm - 0.5 ? " ahead of the tape's hook" : " on the tape"}
          </text>
          {handles &&
            within(handlesOf(draft, result, side), scale.perMm, draft, selected).map((handle) => (
              <HandleMark key={handle.id} handle={handle} scale={scale} heights={heights} locked={!may.design} />
            ))}
          {handles &&
            rail &&
            planHandlesOf(draft, result, side, openOperation(draft, selected)?.id).map((handle) => (
              <HandleMark
                key={handle.id}
                handle={handle}
                scale={scale}
                heights={planOf(rail, scale, tapeY + TAPE_H, planH, roomForBoth(result.rails, scale, planH))}
                locked={!may.design}
              />
            ))}
        </svg>
      )}
    </Box>
  );
}

/** What one marks off for the open operation: dimension lines from its own datum, round it. */
function Marked({
  rail,
  open,
  at,
}: {
  rail?: RailDrawing;
  open?: string;
  at: (x: number, z: number) => readonly [number, number];
}) {
  const own = rail?.measured?.find((m) => m.operation === open);
  if (!own) return null;
  const [left, bottom] = at(own.x0_mm, own.z0_mm);
  const [right, top] = at(own.x1_mm, own.z1_mm);
  return <Dimensions dimensions={own.dimensions} at={at} box={{ left, top, right, bottom }} />;
}

type FromAbove = {
  rail: RailDrawing;
  rails: RailDrawing[];
  open?: string;
  scale: Scale;
  top: number;
  height: number;
};

/** The same from above: the rail's width, and both rails over the broken-out middle. */
function MarkedFromAbove({ rail, rails, open, scale, top, height }: FromAbove) {
  const own = rail.measured?.find((m) => m.operation === open);
  const both = roomForBoth(rails, scale, height);
  if (!own || !both) return null;
  const across = Object.fromEntries(rails.map((r) => [r.side, planOf(r, scale, top, height, true)]));
  const at = (x: number, y: number) => [scale.x(x), across[y < 0 ? "left" : "right"]?.z(y) ?? 0] as const;
  const [left, right] = [scale.x(own.x0_mm), scale.x(own.x1_mm)];
  return <Dimensions dimensions={own.plan} at={at} box={{ left, right, top, bottom: top + height }} />;
}

const ARROW = 9;

/** An end of the section's line: an arrow the way it is seen, to the rear; the lower one is named. */
function SectionMark({ x, y, named }: { x: number; y: number; named: boolean }) {
  return (
    <g stroke={paint("chalk")} fill={paint("chalk")} strokeWidth="1.5" data-section="">
      <path d={`M${x} ${y - 5}v10`} strokeWidth="3" />
      <path d={`M${x} ${y}h${ARROW}m-4 -3l4 3l-4 3`} fill="none" />
      {named && (
        <text x={x + ARROW + 3} y={y + 4} stroke="none" className="halo" style={{ fontSize: 12, fontWeight: 700 }}>
          A
        </text>
      )}
    </g>
  );
}

/** From afar only the open operation's handles: the others would lie on each other. */
function within(handles: Handle[], perMm: number, draft: Draft, selected: string | null): Handle[] {
  if (perMm > 0.45) return handles;
  const open = openOperation(draft, selected);
  return handles.filter((handle) => handle.id.startsWith(`${open?.id}/`));
}

/** The operation whose form is open. */
function openOperation(draft: Draft, selected: string | null) {
  const operations = draft.design.operations;
  return operations.find((op) => selected?.startsWith(op.id)) ?? operations.find((op) => op.kind === "notch");
}

/** How far the gesture has moved the first notch from what was last evaluated. */
function previewShift(draft: ReturnType<typeof shownDraft>, evaluated: ReturnType<typeof shownDraft>) {
  for (const [i, op] of draft.design.operations.entries()) {
    const old = evaluated.design.operations[i];
    if (op.kind === "notch" && old?.kind === "notch") {
      const dx = op.place.offset_mm - old.place.offset_mm;
      const dz = op.depth_mm - old.depth_mm;
      if (dx || dz) return { dx, dz };
    }
  }
  return null;
}

function useWheel(ref: React.RefObject<HTMLElement | null>, turn: (event: WheelEvent) => void) {
  const latest = useRef(turn);
  latest.current = turn;
  useEffect(() => {
    const element = ref.current;
    const listen = (event: WheelEvent) => {
      event.preventDefault();
      latest.current(event);
    };
    element?.addEventListener("wheel", listen, { passive: false });
    return () => element?.removeEventListener("wheel", listen);
  }, [ref]);
}
