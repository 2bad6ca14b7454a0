import { Text } from "@chakra-ui/react";
import type { AxleTravel, Operation } from "../api/types";
import { useMay } from "../app/session";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { useAxlePart } from "./useAxle";

/** Brackets, mounts and plates that the suspension asks for, put into the plan or brought up to date. */
export function MountsAsked() {
  const mounts = useAxlePart("mounts");
  const { act } = usePick("act");
  const may = useMay();
  const operations = useBench((s) => s.history.now.design.operations);
  if (!mounts?.length) return null;
  const there = mounts.filter((m) => operations.some((op) => op.id === m.id)).length;
  const put = () => act({ kind: "set", path: ["design", "operations"], value: together(operations, mounts) });
  return (
    <Group title="Brackets and mounts">
      <Text fontSize="14px" mb="1">
        It asks for {mounts.length}: {mounts.map((m) => m.name).join("; ")}.
      </Text>
      {may.design && (
        <Act onClick={put} hint="They are checked, cut and welded with the rest of the Cut stage">
          {there ? "Bring brackets and mounts up to date" : "Put brackets and mounts into the plan"}
        </Act>
      )}
      {there > 0 && (
        <Text fontSize="13px" color="faint">
          {there} of them are in the plan; their sizes are in the Cut stage.
        </Text>
      )}
    </Group>
  );
}

type Mount = AxleTravel["mounts"][number];

/** What the suspension says of each kind of mount; all other sizes stay as they were chosen. */
const FOLLOWS: Partial<Record<Operation["kind"], readonly string[]>> = {
  bracket: ["place", "face", "height_mm", "along_n", "up_n", "out_n"],
  "axle-bracket": ["place", "x_mm", "y_mm", "z_mm", "stands_on", "base_mm", "along_n", "up_n", "out_n"],
  truss: ["place", "x_mm", "y_mm", "along_n", "up_n", "out_n"],
  "axle-pad": ["place", "x_mm", "y_mm", "z_mm", "tilt_deg", "along_n", "up_n", "out_n"],
  "spring-bridge": ["place", "form", "height_mm", "y_mm", "spring_n", "across_n"],
  pad: ["place", "out_mm", "drop_mm", "force_n"],
  "steering-mount": ["place", "side", "face", "height_mm", "standoff_mm", "lift_mm", "along_n", "up_n", "out_n"],
};
const HOUSING = ["tube_mm", "tube_wall_mm", "housing", "housing_half_mm"] as const;

/** Mounts that are there already keep their own sizes; place and forces follow the suspension. */
function together(operations: Operation[], mounts: readonly Mount[]): Operation[] {
  const kept = operations.map((op) => {
    const fresh = mounts.find((m) => m.id === op.id);
    if (!fresh || fresh.kind !== op.kind) return op;
    const from = fresh as unknown as Record<string, unknown>;
    const keys = [...(FOLLOWS[op.kind] ?? []), ...HOUSING.filter((key) => key in from)];
    const update: Record<string, unknown> = Object.fromEntries(keys.map((key) => [key, from[key]]));
    if (op.kind === "bracket" && fresh.kind === "bracket") {
      const { standoff_mm, lift_mm } = fresh.tabs;
      update.tabs = { ...op.tabs, standoff_mm, lift_mm };
    }
    return { ...op, ...update } as Operation;
  });
  return [...kept, ...mounts.filter((m) => !operations.some((op) => op.id === m.id))];
}
