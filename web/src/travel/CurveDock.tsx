import { Text } from "@chakra-ui/react";
import { useCallback, useState } from "react";
import type { AxleTravel } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { showLength } from "../units/show";
import { type Curve, CurveGrid, travelLabel, Value } from "./CurveGrid";
import { DockHead } from "./DockHead";
import { valueAtTravel } from "./pose";
import { useAxle } from "./useAxle";

/** Every figure through travel as a small curve with the position marked, or all of them as a table. */
export default function CurveDock() {
  const { axle, stock } = useAxle();
  const [table, setTable] = useState(false);
  const curves = axle?.curves ?? [];
  return (
    <div className="dock">
      <DockHead
        title="Through travel, droop to bump"
        note={stock && "dashed: as it was"}
        table={table}
        turn={setTable}
      />
      <div className="curve-dock">
        {axle && curves.length === 0 && (
          <Text p="3" color="faint">
            Not computed: the linkage does not move.
          </Text>
        )}
        {axle && curves.length > 0 && (table ? <CurveTable axle={axle} /> : <Curves axle={axle} stock={stock} />)}
      </div>
    </div>
  );
}

function Curves({ axle, stock }: { axle: AxleTravel; stock: AxleTravel | undefined }) {
  const { travelMm, put } = usePick("travelMm", "put");
  const go = useCallback((mm: number) => put({ travelMm: 2 * Math.round(mm / 2) }), [put]);
  const before = useCallback((c: Curve) => beforeOf(stock, c.id, axle.travel_mm), [stock, axle.travel_mm]);
  return (
    <CurveGrid
      over="through travel"
      curves={axle.curves}
      along={axle.travel_mm}
      at={travelMm}
      go={go}
      endLabel={travelLabel}
      beforeOf={before}
    />
  );
}

/** The same figure as it was, at the planned one's travels. */
function beforeOf(stock: AxleTravel | undefined, id: string, travel: number[]): (number | null)[] | null {
  const curve = stock?.curves.find((c) => c.id === id);
  if (!stock || !curve) return null;
  const [low, high] = [stock.travel_mm[0] ?? 0, stock.travel_mm.at(-1) ?? 0];
  return travel.map((mm) => (mm < low || mm > high ? null : valueAtTravel(stock.travel_mm, curve.values, mm)));
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
