import { Text } from "@chakra-ui/react";
import type { StateHeights } from "../api/types";
import { useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { stateName } from "../units/loadStates";
import { showLength } from "../units/show";

/** How high the rails stand on both axles: before, as planned, and in every load state that the springs know. */
export function HeightTable() {
  const found = useShown((s) => s.result?.heights);
  const style = useBench((s) => s.style);
  if (!found) return null;
  const length = (mm: number | null | undefined) => (mm == null ? "not known" : showLength(mm, style));
  const rake = (deg: number | null | undefined) =>
    deg == null ? "" : `${Math.abs(deg).toFixed(2)}° ${deg > 0.005 ? "nose down" : deg < -0.005 ? "nose up" : ""}`;
  const rows: (readonly [string, StateHeights])[] = [
    ["stock", found.stock],
    ["planned", found.planned],
    ...found.states.map((s) => [stateName(s.state), s] as const),
  ];
  return (
    <Group title="Rails above the ground">
      <table className="figures" aria-label="Rails above the ground">
        <thead>
          <tr>
            <th scope="col">Straight part</th>
            <th scope="col" style={{ textAlign: "end" }}>
              front
            </th>
            <th scope="col" style={{ textAlign: "end" }}>
              rear
            </th>
            <th scope="col" style={{ textAlign: "end" }}>
              rake
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, own]) => (
            <tr key={name}>
              <th scope="row" style={{ whiteSpace: "normal" }}>
                {name}
              </th>
              <td>{length(own.front_mm)}</td>
              <td>{length(own.rear_mm)}</td>
              <td style={{ whiteSpace: "normal" }}>{rake(own.rake_deg)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Text fontSize="14px" mt="1">
        Lowest place of the rails: <b>{length(found.rail_mm)}</b> standing, <b>{length(found.rail_bump_mm)}</b> with
        both axles at full bump.
      </Text>
      <Text fontSize="13px" color="faint">
        Planned front: {found.front_by}. Rear: {found.rear_by}.
      </Text>
    </Group>
  );
}
