import { Box } from "@chakra-ui/react";
import { usePick } from "../draft/store";
import { Group } from "../fields/controls";
import { beside } from "../units/figure";
import { useAxlePart } from "./useAxle";

/** What each link carries in each case, tension positive. */
export function LinkForces() {
  const forces = useAxlePart("forces");
  const { style } = usePick("style");
  if (!forces?.length) return null;
  const cases = Object.keys(forces[0]?.cases ?? {});
  return (
    <Group title={`Links carry, ${beside(1, "kN", style).unit}`}>
      <Box overflowX="auto">
        <table className="figures" aria-label="Forces in the links">
          <thead>
            <tr>
              <th scope="col">pull +, push −</th>
              {cases.map((name) => (
                <th key={name} scope="col" title={name} style={{ textAlign: "end" }}>
                  {name.split(/[ ,]/)[0]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {forces.map((row) => (
              <tr key={row.name}>
                <th scope="row">{row.name}</th>
                {cases.map((name) => (
                  <td key={name}>
                    {beside((row.cases[name] ?? 0) / 1000, "kN", style).value.toFixed(style === "mm" ? 1 : 0)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </Group>
  );
}
