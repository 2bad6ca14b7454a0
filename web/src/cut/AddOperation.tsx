import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useCatalogue } from "../api/catalogue";
import type { Operation } from "../api/types";
import { Act } from "../fields/controls";
import { useFresh } from "./useFresh";

/** Everything that can be done to a rail, each with one line of what it is for. */
export function AddOperation({ add }: { add: (op: Operation) => void }) {
  const [open, setOpen] = useState(false);
  const { forms } = useCatalogue();
  const { operation, trouble } = useFresh();
  const choose = (kind: string) =>
    operation(kind, (op) => {
      add(op);
      setOpen(false);
    });
  if (!open) return <Act onClick={() => setOpen(true)}>Add work to the rails</Act>;
  return (
    <Box role="group" aria-label="Work to add" borderWidth="1px" borderColor="chalk" p="2" mb="2" bg="sheet">
      {trouble && <p role="alert">{trouble}</p>}
      {forms.map(({ kind, name, says }) => (
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
          onClick={() => void choose(kind)}
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
