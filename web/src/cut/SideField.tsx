import { Flex, Text } from "@chakra-ui/react";
import type { Operation } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { Act, ChoiceField } from "../fields/controls";

const SIDES = [
  ["both", "both, alike"],
  ["left", "left only"],
  ["right", "right only"],
] as const;

/** Which rails; splitting makes a left and a right one that remember being a pair. */
export function SideField({ op, index }: { op: Operation; index: number }) {
  const act = useBench((s) => s.act);
  const operations = useBench((s) => s.history.now.design.operations);
  const may = useMay();
  const split = () => {
    const pair_id = op.pair_id ?? op.id;
    const two = (["left", "right"] as const).map((side) => ({
      ...op,
      id: `${op.id}-${side}`.slice(0, 40),
      side,
      pair_id,
    }));
    act({
      kind: "set",
      path: ["design", "operations"],
      value: operations.flatMap((o, i) => (i === index ? two : [o])),
    });
  };
  return (
    <Flex gap="2" align="end" mb="1">
      <ChoiceField label="Rails" path={["design", "operations", index, "side"]} choices={SIDES} />
      {op.side === "both" && may.design && <Act onClick={split}>Split</Act>}
      {op.pair_id && <Text fontSize="13px">one of a pair</Text>}
    </Flex>
  );
}
