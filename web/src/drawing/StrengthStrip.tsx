import { Box, Flex, Text } from "@chakra-ui/react";
import { memo, useRef, useState } from "react";
import { useCatalogue } from "../api/catalogue";
import type { Strip } from "../api/types";
import { paint } from "../app/theme";
import { usePick } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { Act, PlainChoice } from "../fields/controls";
import { LOAD_STATES } from "../units/loadStates";
import { showLength } from "../units/show";
import { linePath } from "./outlinePath";
import { StripTable } from "./StripTable";
import { between, inSight, type Scale, scaleOf } from "./scale";
import { useSize } from "./useSize";
import { useLooking } from "./view";

export type Lane = { name: string; values: readonly number[]; most: number; stock?: readonly number[] };

/** Lanes along the rail: bending, shear and torsion against stock, and the use of the metal in a load case. */
export function lanesOf(strip: Strip): Lane[] {
  const bending = strip.modulus_top.map((top, i) => Math.min(top, strip.modulus_bottom[i] ?? top));
  const lanes: Lane[] = [
    { name: "bending / stock", values: bending, most: 2 },
    { name: "shear / stock", values: strip.shear_area, most: 2 },
    { name: "torsion J / stock", values: strip.torsion_constant, most: 2 },
  ];
  if (strip.use && strip.use_stock) {
    const most = Math.max(0.2, ...strip.use, ...strip.use_stock) * 1.1;
    lanes.push({ name: "worked, of yield/1.5", values: strip.use, most, stock: strip.use_stock });
  }
  if (strip.life) lanes.push({ name: "fatigue life / stock", values: strip.life, most: 2 });
  if (strip.use_torque) {
    lanes[2] = {
      name: "worked by torque",
      values: strip.use_torque,
      most: Math.max(0.2, ...strip.use_torque) * 1.1,
      stock: [],
    };
  }
  return lanes;
}

/** The strength strip under the sheet, on the same station scale. */
export function StrengthStrip() {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const view = useLooking((s) => s.view);
  const { side, stationMm, put, style } = usePick("side", "stationMm", "put", "style");
  const strips = useShown((s) => s.result?.strips);
  const [table, setTable] = useState(false);
  const strip = strips?.find((s) => s.side === side && s.state === "planned");
  const built = strips?.find((s) => s.side === side && s.state === "as-built");
  const scale = scaleOf(view, Math.max(width, 1));
  const lanes = strip ? lanesOf(strip) : [];
  const laneH = height / Math.max(lanes.length, 1);
  return (
    <Flex direction="column" height="100%" minH="0">
      <StripHead table={table} turn={setTable} />
      <Box ref={frame} flex="1" minH="0" bg="sheet" position="relative" overflow={table ? "auto" : "hidden"}>
        {!strip && (
          <Text p="3" color="faint">
            Not computed: a wall of this rail was not measured.
          </Text>
        )}
        {strip && table && <StripTable strip={strip} />}
        {strip && !table && width > 0 && (
          <svg
            width={width}
            height={height}
            aria-label="Strength strip"
            style={{ display: "block" }}
            onPointerDown={(e) => put({ stationMm: scale.station(e.nativeEvent.offsetX) })}
          >
            {lanes.map((lane, i) => (
              <LaneCurve
                key={lane.name}
                lane={lane}
                xs={strip.x_mm}
                built={built && lanesOf(built)[i]}
                builtXs={built?.x_mm}
                scale={scale}
                top={i * laneH}
                height={laneH}
                stationMm={stationMm}
              />
            ))}
            <path
              d={`M${scale.x(stationMm)} 0V${height}`}
              stroke={paint("chalk")}
              strokeDasharray="1 5"
              strokeWidth="1.5"
            >
              <title>{showLength(stationMm, style)} behind the front axle</title>
            </path>
          </svg>
        )}
      </Box>
    </Flex>
  );
}

/** Name, load case and the way to the table; an evaluation does not draw it again. */
const StripHead = memo(function StripHead({ table, turn }: { table: boolean; turn: (table: boolean) => void }) {
  const { side, loadCase, loadState, deflected, put } = usePick("side", "loadCase", "loadState", "deflected", "put");
  const { cases } = useCatalogue();
  return (
    <Flex px="3" py="0.5" gap="3" align="center" bg="panel" borderYWidth="1px" borderColor="rule">
      <Text fontFamily="heading" fontWeight="600" fontSize="17px" flex="1">
        Strength, {side} rail
      </Text>
      <Box w="7rem">
        <PlainChoice
          free
          bare
          label="Loaded as"
          value={loadState}
          choices={LOAD_STATES}
          choose={(value) => put({ loadState: LOAD_STATES.find(([key]) => key === value)?.[0] ?? "laden" })}
        />
      </Box>
      <Box w={{ base: "12.5rem", lg: "16.5rem" }}>
        <PlainChoice
          free
          bare
          label="Load case"
          value={loadCase}
          choices={cases.map((c) => [c.id, c.name] as const)}
          choose={(value) => put({ loadCase: value })}
        />
      </Box>
      <Act
        pressed={deflected}
        onClick={() => put({ deflected: !deflected })}
        hint="The rail's shape under this case, drawn larger"
      >
        Bent shape
      </Act>
      <Act onClick={() => turn(!table)}>{table ? "Curves" : "Table"}</Act>
    </Flex>
  );
});

type CurveProps = {
  lane: Lane;
  xs: readonly number[];
  built?: Lane;
  builtXs?: readonly number[];
  scale: Scale;
  top: number;
  height: number;
  stationMm: number;
};

/** About what a lane's name takes, pixels. */
const NAME_W = 170;

/** Middles of the stretches in sight on which a lane's values leave it at the top, pixels. */
function offScale(lane: Lane, xs: readonly number[], scale: Scale): number[] {
  const out: number[] = [];
  let from: number | null = null;
  xs.forEach((x, i) => {
    const off = (lane.values[i] ?? 0) > lane.most;
    if (off && from === null) from = x;
    if (from !== null && (!off || i === xs.length - 1)) {
      const [a, b] = [Math.max(from, scale.view.x0), Math.min(x, scale.view.x1)];
      if (a < b) out.push(scale.x((a + b) / 2));
      from = null;
    }
  });
  return out;
}

/** One lane: filled where it falls short of stock, a level line at 1, the value under the section. */
function LaneCurve({ lane, xs, built, builtXs, scale, top, height, stationMm }: CurveProps) {
  const level = (value: number) =>
    top + height - 3 - (Math.min(Math.max(value, 0), lane.most) / lane.most) * (height - 8);
  const curve = (values: readonly number[], at: readonly number[] = xs) =>
    linePath(
      inSight(
        values.map((v, i) => [scale.x(at[i] ?? 0), level(v)] as const),
        scale.width,
      ),
    );
  const one = lane.stock ? null : level(1);
  const short = lane.stock
    ? ""
    : linePath(
        [
          [scale.x(xs[0] ?? 0), level(1)] as const,
          ...lane.values.map((v, i) => [scale.x(xs[i] ?? 0), level(Math.min(v, 1))] as const),
          [scale.x(xs.at(-1) ?? 0), level(1)] as const,
        ],
        true,
      );
  const here = between(stationMm, xs, lane.values);
  // the name stands over the curve, or under it where the curve runs along the lane's top
  const clear = xs.every((x, i) => scale.x(x) < 0 || scale.x(x) > NAME_W || level(lane.values[i] ?? 0) > top + 15);
  const below = !lane.stock && here < 1 - 1e-6;
  return (
    <g>
      <path d={`M0 ${top}H${scale.width}`} stroke={paint("rule")} />
      {one !== null && <path d={`M0 ${one}H${scale.width}`} stroke={paint("faint")} strokeDasharray="8 4" />}
      {short && <path d={short} fill="url(#fill-removed)" />}
      {lane.stock && <path d={curve(lane.stock)} fill="none" stroke={paint("faint")} strokeDasharray="8 4" />}
      <path d={curve(lane.values)} fill="none" stroke={paint("ink")} strokeWidth="1.8" />
      {built && (
        <path
          d={curve(built.values, builtXs)}
          fill="none"
          stroke={paint("touch")}
          strokeWidth="2"
          strokeDasharray="2 3"
        />
      )}
      {offScale(lane, xs, scale).map((x) => (
        <path key={x} d={`M${x - 5} ${top + 8}l5 -6l5 6z`} fill={paint("ink")} stroke="none" data-off-scale="">
          <title>goes on above what is drawn, {lane.most} at most</title>
        </path>
      ))}
      <text
        x={8}
        y={clear ? top + 12 : top + height - 4}
        fill={paint("faint")}
        className="halo"
        style={{ fontSize: 12.5 }}
      >
        {lane.name}{" "}
        <tspan fill={below ? paint("removed") : paint("ink")} style={{ fontWeight: 600 }}>
          {here.toFixed(2)}
        </tspan>
      </text>
    </g>
  );
}
