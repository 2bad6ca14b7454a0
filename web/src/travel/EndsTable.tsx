import { useShallow } from "zustand/react/shallow";
import { usePick } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { showLength } from "../units/show";
import { Go } from "./Go";
import { useAxlePart, useIndex } from "./useAxle";

/** What comes to its end first in bump and in droop: a press moves the axle there. */
export function EndsTable() {
  const contacts = useAxlePart("contacts");
  const [low, high] = useEnds();
  const { style, put } = usePick("style", "put");
  if (!contacts?.length) return null;
  return (
    <Group title="What comes first">
      <p className="small-words row-tail">Bold is meant to come; "past it" lies beyond the wanted travel.</p>
      <table className="figures" aria-label="What comes first in bump and in droop" style={{ tableLayout: "fixed" }}>
        <tbody>
          {contacts.map(({ name, way, travel_mm, meant }) => {
            const within = travel_mm >= low && travel_mm <= high;
            return (
              <tr key={name}>
                <th scope="row" style={{ fontWeight: meant ? 600 : 400, whiteSpace: "normal", width: "46%" }}>
                  {name}
                </th>
                <td style={{ whiteSpace: "normal" }}>
                  {within ? "" : "past it: "}
                  {showLength(Math.abs(travel_mm), style)} {way}
                </td>
                <td style={{ width: "20%" }}>{within && <Go to={() => put({ travelMm: travel_mm, rollDeg: 0 })} />}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Group>
  );
}

/** Full droop and full bump, mm. */
function useEnds(): readonly [number, number] {
  const { index } = useIndex();
  return useShown(
    useShallow((s) => {
      const travel = s.result?.travel?.find((t) => t.index === index)?.travel_mm;
      return [travel?.[0] ?? 0, travel?.at(-1) ?? 0] as const;
    }),
  );
}
