import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import { type StageName, useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { useHelp } from "./helpStore";

type Stop = { stage: StageName; at: string; says: string };

const STOPS: readonly Stop[] = [
  {
    stage: "survey",
    at: "[aria-label='Stages']",
    says: "Work goes from 1 to 9, from the tape to the proof. Each stage tells how far it is, and its one next thing stands on top.",
  },
  {
    stage: "survey",
    at: ".stage-grid + section",
    says: "Survey: what only the whole vehicle can tell, before anything comes apart. Click into a field and its word is explained below.",
  },
  {
    stage: "cut",
    at: "[aria-label='Sheet: side elevation above plan']",
    says: "The rail from the side above the plan of both. Red is cut out, green is put in. Drag a blue diamond, or type on the left: both are the same.",
  },
  { stage: "cut", at: ".travel", says: "The axle through its travel: slide it to full bump and see what it touches." },
  {
    stage: "cut",
    at: "[aria-label='Margins']",
    says: "Every check, worst first, one row a cause. Open a red one: it says why, and offers changes that were tried.",
  },
  {
    stage: "cut",
    at: ".section-view",
    says: "The rail cut through where the dotted line stands, before and after. Click the sheet to cut elsewhere.",
  },
  { stage: "travel", at: "main", says: "Links, springs and stops. Pull a point, and the curves follow." },
  {
    stage: "patterns",
    at: ".stage-grid + section",
    says: "Every plate 1:1 with its dimensions, on paper, as DXF or SVG. Measure the printed bar before you cut.",
  },
  {
    stage: "build",
    at: ".stage-grid + section",
    says: "The order of the work, with what must be done before. A step waits until its holds are signed.",
  },
  {
    stage: "prove",
    at: ".stage-grid + section",
    says: "What was welded, measured against what was planned, and what it changes. Help, words and keys are under More.",
  },
];

/** A look round in two minutes: one thing at a time, outlined where it stands. */
export default function GuidedLook() {
  const { look, put } = useHelp();
  const stop = look === null ? undefined : STOPS[look];
  const show = useBench((s) => s.put);
  useEffect(() => {
    if (!stop) return;
    show({ stage: stop.stage });
    const at = setTimeout(() => document.querySelector(stop.at)?.classList.add("looked-at"), 250);
    return () => {
      clearTimeout(at);
      document.querySelector(stop.at)?.classList.remove("looked-at");
    };
  }, [stop, show]);
  if (look === null || !stop) return null;
  const last = look === STOPS.length - 1;
  return (
    <Box
      role="dialog"
      aria-label="Look round"
      position="fixed"
      bottom="4"
      left="50%"
      transform="translateX(-50%)"
      zIndex="20"
      bg="sheet"
      borderWidth="2px"
      borderColor="chalk"
      p="4"
      w="min(34rem, 94vw)"
      onKeyDown={(e) => e.key === "Escape" && put({ look: null })}
    >
      <Text fontSize="16px" aria-live="polite">
        {stop.says}
      </Text>
      <Flex gap="2" mt="3" align="center">
        <Text flex="1" color="faint" fontSize="14px">
          {look + 1} of {STOPS.length}
        </Text>
        <Act onClick={() => put({ look: null })}>End</Act>
        <Act off={look === 0} onClick={() => put({ look: look - 1 })}>
          Back
        </Act>
        <Act main onClick={() => put({ look: last ? null : look + 1 })}>
          {last ? "Done" : "Next"}
        </Act>
      </Flex>
    </Box>
  );
}
