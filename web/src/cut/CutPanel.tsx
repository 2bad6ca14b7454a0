import { Box, Flex, Text } from "@chakra-ui/react";
import type { JobHead, Operation } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { Act } from "../fields/controls";
import { Stiffness } from "../survey/CrossmemberTable";
import { BoxingFields } from "./BoxingFields";
import { Finder } from "./Finder";
import { freshBoxing, freshNotch } from "./fresh";
import { NotchFields } from "./NotchFields";

/** What comes out of the rail and what goes back in. */
export default function CutPanel({ job }: { job: JobHead }) {
  // the committed draft: while a handle is dragged only the fields it moves draw again
  const draft = useBench((s) => s.history.now);
  const act = useBench((s) => s.act);
  const put = useBench((s) => s.put);
  const may = useMay();
  const operations = draft.design.operations;
  const chosen = useBench((s) => s.selected);
  const open =
    operations.find((op) => chosen?.startsWith(op.id)) ?? operations.find((op) => op.kind === "notch") ?? operations[0];
  const add = (value: Operation) => {
    act({ kind: "insert", path: ["design", "operations"], value });
    put({ selected: value.id });
  };
  return (
    <>
      {operations.length === 0 && (
        <Text fontSize="14px" mb="2">
          Nothing is cut yet. Set the target first, then add a notch over the axle; box the rail where the notch will
          be.
        </Text>
      )}
      {operations.map((op, index) => (
        <Box key={op.id} mb="2" borderWidth="1px" borderColor={op === open ? "chalk" : "rule"}>
          <Flex
            as="button"
            width="100%"
            textAlign="start"
            px="2"
            minH="36px"
            align="center"
            bg="sheet"
            aria-expanded={op === open}
            onClick={() => put({ selected: op.id })}
          >
            <Text fontWeight="600" flex="1">
              {op.name}
            </Text>
            <Text fontSize="13px" color="faint">
              {op.side === "both" ? "both rails" : op.side}
            </Text>
          </Flex>
          {op === open && (
            <Box p="2">
              {op.kind === "notch" ? (
                <NotchFields notch={op} index={index} />
              ) : (
                <BoxingFields boxing={op} index={index} />
              )}
              {op.kind === "notch" && may.design && <Finder job={job} notch={op} index={index} />}
            </Box>
          )}
        </Box>
      ))}
      {may.design && (
        <Flex gap="2" wrap="wrap">
          <Act onClick={() => add(freshNotch(draft))}>Add a notch</Act>
          <Act onClick={() => add(freshBoxing(draft))}>Box a stretch</Act>
        </Flex>
      )}
      <MassAdded />
      <Stiffness />
    </>
  );
}

/** Apart, because it changes with every move of a drag and the panel's fields do not. */
function MassAdded() {
  const mass = useShown((s) => s.result?.mass_added_kg ?? 0);
  return <p className="mass">Metal added: {mass.toFixed(2)} kg in all.</p>;
}
