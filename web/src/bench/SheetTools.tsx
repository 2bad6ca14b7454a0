import { Box, Flex } from "@chakra-ui/react";
import type { JobHead, Style } from "../api/types";
import { useMay } from "../app/session";
import { shownDraft, useBench, usePick } from "../draft/store";
import { useLooking } from "../drawing/view";
import { Act, PlainChoice } from "../fields/controls";
import { STYLES } from "../units/styles";
import { keepStyle } from "./keepStyle";

/** Which rail, where the tape is hooked on and in which unit. */
export function SheetTools({ job }: { job: JobHead }) {
  const may = useMay();
  const { side, style, put } = usePick("side", "style", "put");
  const survey = useBench((s) => shownDraft(s).survey);
  const { hook, hookOn } = useLooking();
  return (
    <Flex px="3" py="1" gap="2" align="center" bg="panel" borderBottomWidth="1px" borderColor="rule" wrap="wrap">
      <Box w="6.5rem">
        <PlainChoice
          free
          bare
          label="Rail"
          value={side}
          choices={[
            ["left", "left rail"],
            ["right", "right rail"],
          ]}
          choose={(value) => put({ side: value === "right" ? "right" : "left" })}
        />
      </Box>
      <Box flex="1" minW="9.5rem" maxW="24rem">
        <PlainChoice
          free
          bare
          label="Tape hooked on"
          value={hook ?? survey.datum.feature_id}
          choices={survey.features.map((f) => [f.id, `from ${f.name}`] as const)}
          choose={hookOn}
        />
      </Box>
      <Box w="7.5rem">
        <PlainChoice
          free
          bare
          label="Tape reads"
          value={style}
          choices={STYLES}
          choose={(value) => void keepStyle(job.id, value as Style, may.design)}
        />
      </Box>
    </Flex>
  );
}

/** How much of the frame is seen, on the sheet's own corner. */
export function Closer() {
  const { side, stationMm } = usePick("side", "stationMm");
  const survey = useBench((s) => shownDraft(s).survey);
  const { look, zoom } = useLooking();
  const rail = survey.rails[side].stations;
  const [first, last] = [rail[0]?.x_mm ?? 0, rail.at(-1)?.x_mm ?? 1000];
  const axle = survey.wheelbase_mm ?? stationMm;
  return (
    <Flex gap="1" position="absolute" top="1" right="1" bg="panel">
      <Act onClick={() => look({ x0: first - 150, x1: last + 150 })}>Whole</Act>
      <Act onClick={() => look({ x0: axle - 470, x1: axle + 470 })}>Axle</Act>
      <Act onClick={() => zoom(1 / 1.25, stationMm)} hint="closer (+)">
        +
      </Act>
      <Act onClick={() => zoom(1.25, stationMm)} hint="farther (-)">
        −
      </Act>
    </Flex>
  );
}
