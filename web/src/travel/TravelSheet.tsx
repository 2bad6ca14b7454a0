import { Text } from "@chakra-ui/react";
import { useMemo, useRef, useState } from "react";
import type { AxleTravel, Evaluation } from "../api/types";
import { useMay } from "../app/session";
import { paint } from "../app/theme";
import { useBench, usePick } from "../draft/store";
import { useSize } from "../drawing/useSize";
import { useShown } from "../evaluation/useEvaluation";
import { AxleMarks, Constructed } from "./AxleMarks";
import { Members } from "./Members";
import { PointMark } from "./PointMark";
import { placer, placersOf } from "./pose";
import { RailsSeen } from "./RailsSeen";
import { Solids } from "./Solids";
import { type Vec, vec } from "./space";
import { useAxle } from "./useAxle";
import { type Extent, type PaperView, type ViewName, viewsOf } from "./views";

/** Three views of one suspension at one scale; the travel bar and the roll move them together. */
export default function TravelSheet() {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const { result, stale, shownAt, axle, stock, earlier } = useAxle();
  const [alone, setAlone] = useState<ViewName | null>(null);
  const seen = useHeldExtent(axle);
  const views = useMemo(
    () => (seen && width > 0 ? viewsOf(width, height, seen, alone) : []),
    [seen, width, height, alone],
  );
  return (
    <div ref={frame} className="travel-sheet">
      {!axle && (
        <Text p="4" maxW="34rem">
          Nothing holds an axle yet. Choose a layout in the list to the left: it starts with hard points that fit the
          surveyed hubs, and every point can then be typed or dragged here.
        </Text>
      )}
      {axle && !axle.hub && (
        <Text p="4">The hubs are not known: wheelbase, hub heights, track or tyre are missing in the survey.</Text>
      )}
      {axle && result && views.length > 0 && (
        <svg
          width={width}
          height={height}
          aria-label="Suspension: side view, plan and end view"
          data-stale={stale}
          data-shown-at={shownAt}
          style={{ display: "block", touchAction: "none", userSelect: "none" }}
        >
          {views.map((view) => (
            <OneView
              key={view.name}
              view={view}
              axle={axle}
              stock={stock}
              earlier={earlier}
              result={result}
              turn={() => setAlone(alone ? null : view.name)}
              alone={alone !== null}
            />
          ))}
        </svg>
      )}
      {axle?.trouble && (
        <Text
          role="alert"
          position="absolute"
          bottom="2"
          right="2"
          maxW="46%"
          p="2"
          bg="panel"
          fontSize="14px"
          color="removed"
        >
          It does not move: {axle.trouble}.
        </Text>
      )}
    </div>
  );
}

/** What is to be seen: every member, the wheels, the rail over them. */
function extentOf(axle: AxleTravel): Extent {
  const hub = vec(axle.hub);
  const r = axle.radius_mm ?? 330;
  // a shaft runs far ahead: its rear end is seen
  const points = axle.members.filter((m) => m.kind !== "shaft").flatMap((m) => [m.a, m.b]);
  const xs = [...points.map((p) => p.x_mm), hub[0] - 0.55 * r, hub[0] + 0.55 * r];
  const zs = [...points.map((p) => p.z_mm), hub[2] - r, hub[2] + r];
  const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  const reach = (values: number[], more: number) => Math.max(...values) - Math.min(...values) + more;
  return {
    middle: [middle(xs), 0, middle(zs)],
    span: [reach(xs, 170), 2 * (axle.half_track_mm ?? 800) + 340, reach(zs, 190)],
  };
}

type ViewProps = {
  view: PaperView;
  axle: AxleTravel;
  stock: AxleTravel | undefined;
  earlier: AxleTravel | undefined;
  result: Evaluation;
  turn: () => void;
  alone: boolean;
};

function OneView({ view, axle, stock, earlier, result, turn, alone }: ViewProps) {
  const { travelMm, rollDeg, steer, holdLength } = usePick("travelMm", "rollDeg", "steer", "holdLength");
  const may = useMay();
  const { right: now, left } = usePlacers(axle, travelMm, rollDeg, steer);
  const ride = useMemo(() => placer(axle, 0, 0), [axle]);
  const before = useMemo(() => (stock?.hub ? placer(stock, travelMm, 0) : null), [stock, travelMm]);
  const lately = useMemo(
    () => (earlier?.hub ? placer(earlier, travelMm, rollDeg) : null),
    [earlier, travelMm, rollDeg],
  );
  const problems = useShown((s) => s.problems.length > 0);
  const moved = travelMm !== 0 || rollDeg !== 0 || steer !== 0;
  return (
    <g data-view={view.name}>
      <clipPath id={`view-${view.name}`}>
        <rect x={view.left} y={view.top} width={view.width} height={view.height} />
      </clipPath>
      <g clipPath={`url(#view-${view.name})`}>
        <RailsSeen view={view} rails={result.rails} at={axle.hub?.[0] ?? 0} />
        <AxleMarks view={view} axle={axle} place={now} left={left} travelMm={travelMm} />
        {stock && before && <Members view={view} axle={stock} place={before} ghost stock />}
        {moved && <Members view={view} axle={axle} place={ride} ghost />}
        {earlier && lately && <Members view={view} axle={earlier} place={lately} ghost last />}
        <Solids view={view} solids={axle.solids} hub={axle.hub} place={now} />
        <Members view={view} axle={axle} place={now} left={left} />
        <Constructed view={view} axle={axle} place={now} left={left} travelMm={travelMm} />
        {axle.grips.map((grip) => (
          <PointMark
            key={grip.path}
            view={view}
            grip={grip}
            hub={vec(axle.hub)}
            place={now}
            locked={!may.design || problems}
            about={holdLength ? otherEnd(axle, grip.path) : undefined}
          />
        ))}
      </g>
      <rect
        x={view.left + 0.5}
        y={view.top + 0.5}
        width={view.width - 1}
        height={view.height - 1}
        fill="none"
        stroke={paint("rule")}
      />
      <text x={view.left + 10} y={view.top + 18} fill={paint("faint")} className="halo" style={{ fontSize: 13 }}>
        {view.words}
      </text>
      <g
        role="button"
        tabIndex={0}
        aria-label={alone ? "All three views" : `${view.words}: larger`}
        style={{ cursor: "pointer" }}
        onClick={turn}
        onKeyDown={(e) => e.key === "Enter" && turn()}
      >
        <rect
          x={view.left + view.width - 62}
          y={view.top + 4}
          width={58}
          height={24}
          fill={paint("panel")}
          stroke={paint("rule")}
        />
        <text
          x={view.left + view.width - 33}
          y={view.top + 21}
          textAnchor="middle"
          fill={paint("ink")}
          style={{ fontSize: 13 }}
        >
          {alone ? "all" : "larger"}
        </text>
      </g>
    </g>
  );
}

/** Where a link's other end stands at ride height; nothing for a point that is no link's. */
function otherEnd(axle: AxleTravel, path: string): Vec | undefined {
  const other = path.endsWith(".frame")
    ? path.replace(/\.frame$/, ".axle")
    : path.endsWith(".axle")
      ? path.replace(/\.axle$/, ".frame")
      : null;
  const grip = axle.grips.find((g) => g.path === other);
  return grip && [grip.at.x_mm, grip.at.y_mm, grip.at.z_mm];
}

/** Placers that are the same ones as long as they put everything in the same place. */
function usePlacers(axle: AxleTravel, travelMm: number, rollDeg: number, steer: number) {
  const fresh = useMemo(() => placersOf(axle, travelMm, rollDeg, steer), [axle, travelMm, rollDeg, steer]);
  const held = useRef(fresh);
  if (held.current.key !== fresh.key) held.current = fresh;
  return held.current;
}

/** What is seen stays where it is while a point is dragged, so that the sheet does not move under the hand. */
function useHeldExtent(axle: AxleTravel | undefined): Extent | null {
  const dragging = useBench((s) => s.gesture !== null);
  const held = useRef<Extent | null>(null);
  const fresh = useMemo(() => (axle?.hub ? extentOf(axle) : null), [axle]);
  if (!dragging || !held.current) held.current = fresh;
  return held.current;
}
