import { usePick } from "../draft/store";
import { Group } from "../fields/controls";
import { showFigure } from "../units/figure";
import { stateName } from "../units/loadStates";
import { showLength } from "../units/show";
import { Go } from "./Go";
import { useAxlePart } from "./useAxle";

/** Where the axle stands as loaded: a press moves the travel bar there. */
export function StandsTable() {
  const stands = useAxlePart("stands");
  const { style, put } = usePick("style", "put");
  if (!stands?.length) return null;
  const words = (mm: number | null) => {
    if (mm === null) return "on its stops";
    if (Math.abs(mm) < 0.5) return "at ride height";
    return `${showLength(Math.abs(mm), style)} ${mm > 0 ? "bump" : "droop"}`;
  };
  return (
    <Group title="Stands at">
      <table className="figures" aria-label="Where the axle stands as loaded">
        <tbody>
          {stands.map(({ state, load_n, travel_mm, frequency_hz, on_tyre_hz, bump_left_mm }) => (
            <tr key={state}>
              <th scope="row" style={{ whiteSpace: "normal" }}>
                {stateName(state)}
                <span className="row-value" style={{ display: "block" }}>
                  {showFigure(load_n / 1000, "kN", style)}
                  {frequency_hz == null ? "" : `, ${frequency_hz.toFixed(2)} Hz`}
                  {on_tyre_hz == null ? "" : ` (${on_tyre_hz.toFixed(2)} on its tyres)`}
                </span>
              </th>
              <td style={{ whiteSpace: "normal" }}>
                {words(travel_mm)}
                {bump_left_mm != null && (
                  <span className="row-value" style={{ display: "block" }}>
                    {showLength(bump_left_mm, style)} of bump left
                  </span>
                )}
              </td>
              <td>{travel_mm !== null && <Go to={() => put({ travelMm: travel_mm, rollDeg: 0 })} />}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}
