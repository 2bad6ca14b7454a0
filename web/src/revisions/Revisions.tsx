import { Box, Flex, Text } from "@chakra-ui/react";
import { lazy, Suspense, useEffect } from "react";
import type { JobHead } from "../api/types";
import { useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { useHelp } from "../help/helpStore";
import { noGhost, useGhost } from "./ghost";

const RevisionsPanel = lazy(() => import("./RevisionsPanel"));

/** The list of options and revisions when it is asked for, and what else is drawn on the sheet meanwhile. */
export function Revisions({ job }: { job: JobHead }) {
  const open = useHelp((s) => s.revisions);
  const ghost = useGhost((s) => s.name);
  const optionId = useBench((s) => s.optionId);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is drawn belongs to the option that was open
  useEffect(() => noGhost, [optionId]);
  return (
    <Suspense fallback={null}>
      {open && <RevisionsPanel job={job} />}
      {ghost && (
        <Box position="fixed" left="50%" transform="translateX(-50%)" bottom="3" zIndex="4" role="status">
          <Flex gap="3" align="center" bg="sheet" borderWidth="1px" borderColor="ink" px="3" py="1">
            <svg width="34" height="8" aria-hidden="true">
              <path d="M0 4H34" stroke="currentColor" strokeDasharray="9 3 2 3" />
            </svg>
            <Text fontSize="14px">{ghost} on the sheet</Text>
            <Act onClick={noGhost}>Leave out</Act>
          </Flex>
        </Box>
      )}
    </Suspense>
  );
}
