import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Operation, OperationKind } from "../api/types";
import { useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { freshOperation } from "./fresh";
import { KINDS } from "./kinds";

const ALL: { kind: OperationKind; name: string; says: string }[] = [
  { kind: "notch", name: "Notch", says: "an opening for an axle, arm or tie rod: it buys travel and lowers nothing" },
  { kind: "boxing", name: "Boxing plate", says: "closes an open channel: buys torsion, little bending" },
  ...KINDS,
];

/** Everything that can be done to a rail, each with one line of what it is for. */
export function AddOperation({ add }: { add: (op: Operation) => void }) {
  const [open, setOpen] = useState(false);
  const choose = (kind: OperationKind) => {
    add(freshOperation(useBench.getState().history.now, kind));
    setOpen(false);
  };
  if (!open) return <Act onClick={() => setOpen(true)}>Add work to the rails</Act>;
  return (
    <Box role="group" aria-label="Work to add" borderWidth="1px" borderColor="chalk" p="2" mb="2" bg="sheet">
      {ALL.map(({ kind, name, says }) => (
        <Box
          key={kind}
          as="button"
          display="block"
          width="100%"
          textAlign="start"
          py="1"
          minH="40px"
          borderBottomWidth="1px"
          borderColor="rule"
          onClick={() => choose(kind)}
        >
          <Text as="span" fontWeight="600">
            {name}
          </Text>{" "}
          <Text as="span" fontSize="13px" color="faint">
            {says}
          </Text>
        </Box>
      ))}
      <Box pt="2">
        <Act onClick={() => setOpen(false)}>Not now</Act>
      </Box>
    </Box>
  );
}
