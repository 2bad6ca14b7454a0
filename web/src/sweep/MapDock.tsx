import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { api, got } from "../api/client";
import type { ClearanceMap } from "../api/types";
import { paint } from "../app/theme";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { useSize } from "../drawing/useSize";
import { Act } from "../fields/controls";
import { stateName } from "../units/loadStates";
import { showLength } from "../units/show";
import { useSweep } from "./useSweep";

/** The chosen pair's clearance over travel and steer: where it is tight, and where it touches. */
export default function MapDock() {
  const { chosen, pairs, on } = useSweep();
  const jobId = useBench((s) => s.jobId);
  const [map, setMap] = useState<ClearanceMap | null>(null);
  const [trouble, setTrouble] = useState("");
  const [table, setTable] = useState(false);
  useEffect(() => {
    if (!chosen || !on) return setMap(null);
    let gone = false;
    setTrouble("");
    const body = { job_id: jobId, design: on.design, survey: on.survey, pair_id: chosen };
    got(api.POST("/api/sweep/map", { body }))
      .then((found) => !gone && setMap(found))
      .catch((error) => !gone && setTrouble(messageOf(error)));
    return () => {
      gone = true;
    };
  }, [chosen, on, jobId]);
  const pair = pairs.find((p) => p.id === chosen);
  return (
    <Flex direction="column" height="100%" minH="0">
      <Flex px="3" py="0.5" gap="3" align="center" bg="panel" borderYWidth="1px" borderColor="rule">
        <Text fontFamily="heading" fontWeight="600" fontSize="17px" flex="1">
          {pair ? `Clearance, ${pair.moving} to ${pair.other}` : "Clearance over travel and steer"}
        </Text>
        {map && <Act onClick={() => setTable(!table)}>{table ? "Map" : "Table"}</Act>}
      </Flex>
      <Box flex="1" minH="0" overflow="auto" bg="sheet">
        {trouble && (
          <Text p="3" role="alert">
            {trouble}
          </Text>
        )}
        {!chosen && (
          <Text p="3" color="faint">
            Sweep, then pick a pair in the list: its clearance over all travel and lock is drawn here.
          </Text>
        )}
        {map && pair && map.id === chosen && (table ? <MapTable map={map} /> : <Field map={map} />)}
      </Box>
    </Flex>
  );
}

const PAD = { left: 74, bottom: 26, top: 6, right: 200 };

/** Travel upward, steer to the right; a cell is struck where it touches and dotted where it is tighter than wanted. */
function Field({ map }: { map: ClearanceMap }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const { travelMm, steer, style, put } = usePick("travelMm", "steer", "style", "put");
  const known = map.gap_mm.flat().filter((v): v is number => v !== null);
  const most = Math.max(...known, map.needed_mm * 2);
  const [w, h] = [Math.max(width - PAD.left - PAD.right, 10), Math.max(height - PAD.top - PAD.bottom, 10)];
  const [rows, columns] = [map.travel_mm.length, map.inputs.length];
  const [low, high] = [map.travel_mm[0] ?? 0, map.travel_mm.at(-1) ?? 1];
  const [left, right] = [map.inputs[0] ?? 0, map.inputs.at(-1) ?? 0];
  const single = columns < 2;
  const x = (s: number) => PAD.left + (single ? w / 2 : ((s - left) / (right - left)) * w);
  const y = (t: number) => PAD.top + h - ((t - low) / (high - low)) * h;
  const [cw, ch] = [single ? w : w / (columns - 1), h / (rows - 1)];
  const pick = (px: number, py: number) => {
    const t = low + ((PAD.top + h - py) / h) * (high - low);
    const s = single ? 0 : left + ((px - PAD.left) / w) * (right - left);
    put({
      travelMm: Math.round(Math.min(Math.max(t, low), high)),
      steer: Math.round(Math.min(Math.max(s, -1), 1) * 50) / 50,
    });
  };
  return (
    <Box ref={frame} height="100%" position="relative">
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label="Map of the clearance over travel and steer"
          onPointerDown={(e) => pick(e.nativeEvent.offsetX, e.nativeEvent.offsetY)}
        >
          <defs>
            <pattern id="tight" width="5" height="5" patternUnits="userSpaceOnUse">
              <circle cx="2.5" cy="2.5" r="1.1" fill="var(--chakra-colors-removed)" />
            </pattern>
            <pattern id="struck" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="5" height="5" fill="var(--chakra-colors-touch)" opacity="0.35" />
              <path d="M0 0V5" stroke="var(--chakra-colors-touch)" strokeWidth="2.4" />
            </pattern>
          </defs>
          {map.gap_mm.map((row, i) =>
            row.map((gap, j) => {
              if (gap === null) return null;
              const box = {
                x: x(map.inputs[j] ?? 0) - cw / 2,
                y: y(map.travel_mm[i] ?? 0) - ch / 2,
                width: cw + 0.5,
                height: ch + 0.5,
              };
              const key = `${i}-${j}`;
              if (gap <= 0) return <rect key={key} {...box} fill="url(#struck)" />;
              if (gap < map.needed_mm) return <rect key={key} {...box} fill="url(#tight)" />;
              return (
                <rect key={key} {...box} fill="var(--chakra-colors-added)" opacity={0.06 + 0.34 * (1 - gap / most)} />
              );
            }),
          )}
          <path d={`M${x(0)} ${PAD.top}v${h}M${PAD.left} ${y(0)}h${w}`} stroke="var(--chakra-colors-rule)" />
          {Object.entries(map.stands_mm ?? {}).map(([state, t], i) =>
            t < low || t > high ? null : (
              <g key={state}>
                <path d={`M${PAD.left} ${y(t)}h${w}`} stroke={paint("ink")} strokeDasharray="3 4" />
                <text x={PAD.left + 4 + (i % 2) * 70} y={y(t) - 3} fill={paint("ink")} style={{ fontSize: 12 }}>
                  {stateName(state)}
                </text>
              </g>
            ),
          )}
          <circle
            cx={x(single ? 0 : steer)}
            cy={y(Math.min(Math.max(travelMm, low), high))}
            r="5"
            fill="var(--chakra-colors-chalk)"
          />
          <g fill="var(--chakra-colors-faint)" style={{ fontSize: 12 }}>
            {[low, 0, high].map((t) => (
              <text key={t} x={PAD.left - 8} y={y(t) + 4} textAnchor="end">
                {showLength(t, style)}
              </text>
            ))}
            {!single && (
              <>
                <text x={x(left)} y={height - 8}>
                  full left
                </text>
                <text x={x(right)} y={height - 8} textAnchor="end">
                  full right
                </text>
              </>
            )}
            <text x={PAD.left + w + 14} y={PAD.top + 18}>
              least {showLength(Math.min(...known), style)}
            </text>
            <text x={PAD.left + w + 14} y={PAD.top + 38}>
              dotted: under {showLength(map.needed_mm, style)}
            </text>
            <text x={PAD.left + w + 14} y={PAD.top + 58}>
              struck: touches
            </text>
          </g>
        </svg>
      )}
    </Box>
  );
}

const SHOWN = 7;

function MapTable({ map }: { map: ClearanceMap }) {
  const style = useBench((s) => s.style);
  const some = (count: number) => [
    ...new Set(Array.from({ length: SHOWN }, (_, i) => Math.round((i * (count - 1)) / (SHOWN - 1)))),
  ];
  const [rows, columns] = [some(map.travel_mm.length).reverse(), some(map.inputs.length)];
  return (
    <table className="figures" aria-label="Clearance over travel and steer">
      <thead>
        <tr>
          <th scope="col">Travel</th>
          {columns.map((j) => (
            <th key={j} scope="col" style={{ textAlign: "end" }}>
              {Math.round(100 * (map.inputs[j] ?? 0))} %
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((i) => (
          <tr key={i}>
            <th scope="row">{showLength(map.travel_mm[i] ?? 0, style)}</th>
            {columns.map((j) => (
              <td key={j}>{map.gap_mm[i]?.[j] == null ? "none" : showLength(map.gap_mm[i]?.[j] ?? 0, style)}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
