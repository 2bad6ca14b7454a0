import { Box, Flex, Text } from "@chakra-ui/react";
import { memo, type RefObject, useEffect, useRef, useState } from "react";
import type { AxleTravel } from "../api/types";
import { paint } from "../app/theme";
import { useBench, usePick } from "../draft/store";
import { useSize } from "../drawing/useSize";
import { Act } from "../fields/controls";
import { showLength, showNumber } from "../units/show";
import { valueAtTravel } from "./pose";
import { useAxle } from "./useAxle";

type Curve = AxleTravel["curves"][number];

/** Every figure through travel as a small curve with the position marked, or all of them as a table. */
export default function CurveDock() {
  const { axle, stock } = useAxle();
  const [table, setTable] = useState(false);
  const curves = axle?.curves ?? [];
  return (
    <Flex direction="column" height="100%" minH="0">
      <Flex px="3" py="0.5" gap="3" align="center" bg="panel" borderYWidth="1px" borderColor="rule">
        <Text fontFamily="heading" fontWeight="600" fontSize="17px" flex="1">
          Through travel, droop to bump
          {stock && <span className="small-words row-tail"> dashed: as it was</span>}
        </Text>
        <Act onClick={() => setTable(!table)}>{table ? "Curves" : "Table"}</Act>
      </Flex>
      <Box className="curve-dock" flex="1" minH="0" overflow="auto" bg="sheet">
        {axle && curves.length === 0 && (
          <Text p="3" color="faint">
            Not computed: the linkage does not move.
          </Text>
        )}
        {axle && curves.length > 0 && (table ? <CurveTable axle={axle} /> : <Curves axle={axle} stock={stock} />)}
      </Box>
    </Flex>
  );
}

function Curves({ axle, stock }: { axle: AxleTravel; stock: AxleTravel | undefined }) {
  return (
    <div className="curves">
      {axle.curves.map((curve) => (
        <One key={curve.id} curve={curve} travel={axle.travel_mm} stock={stock} />
      ))}
    </div>
  );
}

/** The same figure as it was, at the planned one's travels. */
function beforeOf(stock: AxleTravel | undefined, id: string, travel: number[]): (number | null)[] | null {
  const curve = stock?.curves.find((c) => c.id === id);
  if (!stock || !curve) return null;
  const [low, high] = [stock.travel_mm[0] ?? 0, stock.travel_mm.at(-1) ?? 0];
  return travel.map((mm) => (mm < low || mm > high ? null : valueAtTravel(stock.travel_mm, curve.values, mm)));
}

const H = 58;

type OneProps = { curve: Curve; travel: number[]; stock: AxleTravel | undefined };

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
  travel,
  stock,
  frame,
}: OneProps & { frame: RefObject<HTMLDivElement | null> }) {
  const before = beforeOf(stock, curve.id, travel);
  const { width } = useSize(frame);
  const { travelMm, put } = usePick("travelMm", "put");
  const known = [...curve.values, ...(before ?? [])].filter((v): v is number => v !== null);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const pad = Math.max((high - low) * 0.12, Math.abs(high) * 1e-3, 1e-6);
  const [first, last] = [travel[0] ?? 0, travel.at(-1) ?? 1];
  const x = (mm: number) => ((mm - first) / (last - first)) * width;
  const y = (v: number) => H - 4 - ((v - low + pad) / (high - low + 2 * pad)) * (H - 8);
  const here = valueAtTravel(travel, curve.values, travelMm);
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
          aria-label={`${curve.name} through travel`}
          style={{ display: "block" }}
          onPointerDown={(e) =>
            put({ travelMm: 2 * Math.round((first + (e.nativeEvent.offsetX / width) * (last - first)) / 2) })
          }
        >
          <path d={`M${x(0)} 0V${H}`} stroke={paint("rule")} />
          {low < 0 && high > 0 && <path d={`M0 ${y(0)}H${width}`} stroke={paint("rule")} strokeDasharray="4 3" />}
          {before && (
            <path d={line(before, travel, x, y)} fill="none" stroke={paint("removed")} strokeDasharray="5 3" />
          )}
          <path d={line(curve.values, travel, x, y)} fill="none" stroke={paint("ink")} strokeWidth="1.8" />
          <path d={`M${x(travelMm)} 0V${H}`} stroke={paint("chalk")} strokeDasharray="1 4" strokeWidth="1.5" />
          {here !== null && <circle cx={x(travelMm)} cy={y(here)} r="3.5" fill={paint("chalk")} />}
        </svg>
      )}
    </>
  );
});

function line(
  values: readonly (number | null)[],
  travel: number[],
  x: (mm: number) => number,
  y: (v: number) => number,
): string {
  let pen = "M";
  let out = "";
  values.forEach((value, i) => {
    if (value === null) {
      pen = "M";
      return;
    }
    out += `${pen}${x(travel[i] ?? 0).toFixed(1)} ${y(value).toFixed(1)}`;
    pen = "L";
  });
  return out;
}

function Value({ curve, value }: { curve: Curve; value: number | null }) {
  const style = useBench((s) => s.style);
  if (value === null) return <>none</>;
  return <>{curve.unit === "mm" ? showLength(value, style) : `${showNumber(value, 3)} ${curve.unit}`}</>;
}

const ROWS = 9;

function CurveTable({ axle }: { axle: AxleTravel }) {
  const style = useBench((s) => s.style);
  const last = axle.travel_mm.length - 1;
  const rows = Array.from({ length: ROWS }, (_, i) => Math.round((i * last) / (ROWS - 1)));
  return (
    <table className="figures" aria-label="Figures through travel">
      <thead>
        <tr>
          <th scope="col">Figure</th>
          {rows.map((i) => (
            <th key={i} scope="col" style={{ textAlign: "end" }}>
              {showLength(axle.travel_mm[i] ?? 0, style)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {axle.curves.map((curve) => (
          <tr key={curve.id}>
            <th scope="row">{curve.name}</th>
            {rows.map((i) => (
              <td key={i}>
                <Value curve={curve} value={curve.values[i] ?? null} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
