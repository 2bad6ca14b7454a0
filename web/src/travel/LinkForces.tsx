import { Box } from "@chakra-ui/react";
import { Group } from "../fields/controls";
import { useAxlePart } from "./useAxle";

/** What each link carries in each case, tension positive. */
export function LinkForces() {
  const forces = useAxlePart("forces");
  if (!forces?.length) return null;
  const cases = Object.keys(forces[0]?.cases ?? {});
  return (
    <Group title="Links carry, kN">
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
                  <td key={name}>{((row.cases[name] ?? 0) / 1000).toFixed(1)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </Group>
  );
}
