import { usePick } from "../draft/store";
import { Group } from "../fields/controls";
import { showLength } from "../units/show";
import { Go } from "./Go";
import { useAxle } from "./useAxle";

/** What comes to its end first in bump and in droop: a press moves the axle there. */
export function EndsTable() {
  const { axle } = useAxle();
  const { style, put } = usePick("style", "put");
  if (!axle?.contacts.length) return null;
  const low = Math.min(...axle.travel_mm);
  const high = Math.max(...axle.travel_mm);
  return (
    <Group title="What comes first">
      <p className="small-words row-tail">Bold is meant to come; "past it" lies beyond the wanted travel.</p>
      <table className="figures" aria-label="What comes first in bump and in droop" style={{ tableLayout: "fixed" }}>
        <tbody>
          {axle.contacts.map(({ name, way, travel_mm, meant }) => {
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
