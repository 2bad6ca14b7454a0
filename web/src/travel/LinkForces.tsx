import { Box } from "@chakra-ui/react";
import type { AxleTravel, Operation } from "../api/types";
import { useMay } from "../app/session";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { useAxle } from "./useAxle";

/** What each link carries in each case, tension positive, and the brackets that follow from it. */
export function LinkForces() {
  const { axle } = useAxle();
  const may = useMay();
  if (!axle?.forces.length) return null;
  const cases = Object.keys(axle.forces[0]?.cases ?? {});
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
            {axle.forces.map((row) => (
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
      {may.design && axle.brackets.length > 0 && <FrameBrackets axle={axle} />}
    </Group>
  );
}

/** Puts the brackets that the links ask for on the rails, or brings those that are there up to date. */
function FrameBrackets({ axle }: { axle: AxleTravel }) {
  const { act } = usePick("act");
  const there = useBench((s) =>
    s.history.now.design.operations.some((op) => axle.brackets.some((b) => b.id === op.id)),
  );
  const put = () => {
    const { operations } = useBench.getState().history.now.design;
    act({ kind: "set", path: ["design", "operations"], value: together(operations, axle.brackets) });
  };
  return (
    <Box mt="1">
      <Act onClick={put} hint="They are checked, cut and welded with the rest of the Cut stage">
        {there ? "Bring their brackets up to date" : "Put their brackets on the rails"}
      </Act>
    </Box>
  );
}

/** Brackets that are there already keep their own sizes; place and forces follow the links. */
function together(operations: Operation[], brackets: AxleTravel["brackets"]): Operation[] {
  const kept = operations.map((op) => {
    const fresh = brackets.find((b) => b.id === op.id);
    if (!fresh || op.kind !== "bracket") return op;
    const { place, face, height_mm, along_n, up_n, out_n, tabs } = fresh;
    const own = { ...op.tabs, standoff_mm: tabs.standoff_mm, lift_mm: tabs.lift_mm };
    return { ...op, place, face, height_mm, along_n, up_n, out_n, tabs: own };
  });
  return [...kept, ...brackets.filter((b) => !operations.some((op) => op.id === b.id))];
}
