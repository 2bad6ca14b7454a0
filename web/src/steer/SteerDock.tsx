import { Text } from "@chakra-ui/react";
import { useCallback, useState } from "react";
import type { AxleTravel } from "../api/types";
import { usePick } from "../draft/store";
import { CurveGrid, travelLabel, Value } from "../travel/CurveGrid";
import { DockHead } from "../travel/DockHead";
import { useAxle } from "../travel/useAxle";

/** Curves through travel that the steering decides. */
const BY_ITSELF = ["toe", "steer", "camber", "caster", "trail", "scrub"];

/** What turning the steering wheel does at ride height, and what travel does with it held. */
export default function SteerDock() {
  const { axle } = useAxle();
  const { steer, travelMm, put } = usePick("steer", "travelMm", "put");
  const [table, setTable] = useState(false);
  const turn = useCallback((at: number) => put({ steer: Math.round(at * 50) / 50 }), [put]);
  const move = useCallback((mm: number) => put({ travelMm: 2 * Math.round(mm / 2) }), [put]);
  const steering = axle?.steer;
  const through = axle?.curves.filter((c) => BY_ITSELF.includes(c.id)) ?? [];
  const turned = steering?.curves ?? [];
  return (
    <div className="dock">
      <DockHead title="Wheel held, droop to bump; then turned, full left to full right" table={table} turn={setTable} />
      <div className="curve-dock">
        {axle && turned.length === 0 && (
          <Text p="3" color="faint">
            Not computed: {steering?.trouble || "no steering is given yet"}.
          </Text>
        )}
        {axle && steering && turned.length > 0 && table && <SteerTable steering={steering} />}
        {axle && steering && turned.length > 0 && !table && (
          <>
            <CurveGrid
              over="through travel"
              curves={through}
              along={axle.travel_mm}
              at={travelMm}
              go={move}
              endLabel={travelLabel}
            />
            <CurveGrid
              over="from lock to lock"
              curves={turned}
              along={steering.inputs ?? []}
              at={steer}
              go={turn}
              endLabel={lockLabel}
            />
          </>
        )}
      </div>
    </div>
  );
}

const lockLabel = (at: number) => (at < 0 ? "left lock" : "right lock");

const SHOWN = 7;

function SteerTable({ steering }: { steering: NonNullable<AxleTravel["steer"]> }) {
  const inputs = steering.inputs ?? [];
  const rows = Array.from({ length: SHOWN }, (_, i) => Math.round((i * (inputs.length - 1)) / (SHOWN - 1)));
  return (
    <table className="figures" aria-label="Figures from lock to lock">
      <thead>
        <tr>
          <th scope="col">Steering wheel, to the right</th>
          {rows.map((i) => (
            <th key={i} scope="col" style={{ textAlign: "end" }}>
              {Math.round((inputs[i] ?? 0) * steering.wheel_deg)}°
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(steering.curves ?? []).map((curve) => (
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
