import { usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { showLength } from "../units/show";
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
      <table className="figures" aria-label="What comes first in bump and in droop">
        <tbody>
          {axle.contacts.map(({ name, way, travel_mm, meant }) => {
            const within = travel_mm >= low && travel_mm <= high;
            return (
              <tr key={name}>
                <th scope="row" style={{ fontWeight: meant ? 600 : 400 }}>
                  {name}
                </th>
                <td>
                  {showLength(Math.abs(travel_mm), style)} {way}
                  {within ? "" : ", beyond the travel"}
                </td>
                <td>
                  {within && (
                    <Act onClick={() => put({ travelMm: travel_mm, rollDeg: 0 })} hint="Move the axle there">
                      Go
                    </Act>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Group>
  );
}
