import { Box, Flex, Spinner } from "@chakra-ui/react";
import { Suspense } from "react";
import type { JobHead } from "../api/types";
import { usePick } from "../draft/store";
import { Sheet } from "../drawing/Sheet";
import { StrengthStrip } from "../drawing/StrengthStrip";
import { TravelBar } from "../drawing/TravelBar";
import { TravelControls } from "../travel/TravelControls";
import { ahead } from "./ahead";
import { Closer, SheetTools } from "./SheetTools";

const SurveyTables = ahead(() => import("../survey/SurveyTables"));
const TravelSheet = ahead(() => import("../travel/TravelSheet"));
const SteerDock = ahead(() => import("../steer/SteerDock"));
const SpaceView = ahead(() => import("../space/SpaceView"));
const MapDock = ahead(() => import("../sweep/MapDock"));
const CurveDock = ahead(() => import("../travel/CurveDock"));
const PatternView = ahead(() => import("../patterns/PatternView"));
const StepList = ahead(() => import("../build/StepList"));
const ReadingTable = ahead(() => import("../prove/ReadingTable"));

/** What lies on the bench: the sheet with the stage's own dock under it, or the stage's own sheet. */
export function Centre({ job }: { job: JobHead }) {
  const { stage, inSpace } = usePick("stage", "inSpace");
  if (stage === "patterns" || stage === "build") {
    return (
      <Flex direction="column" minH={{ base: "auto", md: "0" }} minW="0" bg="sheet" as="main">
        <Suspense fallback={<Spinner m="6" />}>
          {stage === "patterns" ? <PatternView job={job} /> : <StepList job={job} />}
        </Suspense>
      </Flex>
    );
  }
  if (stage === "travel" || stage === "steer" || stage === "sweep") {
    const Dock = stage === "steer" ? SteerDock : stage === "sweep" ? MapDock : CurveDock;
    return (
      <Flex direction="column" minH={{ base: "860px", md: "0" }} minW="0" as="main">
        <TravelControls />
        <Suspense fallback={<Spinner m="6" />}>
          <Box flex="1" minH="0">
            {inSpace || stage === "sweep" ? <SpaceView job={job} /> : <TravelSheet job={job} />}
          </Box>
          <Box height="222px" minH="0">
            <Dock job={job} />
          </Box>
        </Suspense>
      </Flex>
    );
  }
  const tables = stage === "survey" || stage === "prove";
  return (
    <Flex direction="column" minH="0" minW="0" as="main">
      <SheetTools job={job} />
      <TravelBar />
      <Box flex={{ base: "none", md: "1" }} height={{ base: "420px", md: "auto" }} minH="0" position="relative">
        <Sheet handles={stage === "cut"} />
        <Closer />
      </Box>
      <Box
        height={tables ? { base: "auto", md: "42%" } : "206px"}
        minH="0"
        order={tables ? { base: -1, md: 0 } : undefined}
      >
        <Suspense fallback={<Spinner m="6" />}>
          {stage === "survey" ? (
            <SurveyTables job={job} />
          ) : stage === "prove" ? (
            <ReadingTable job={job} />
          ) : (
            <StrengthStrip />
          )}
        </Suspense>
      </Box>
    </Flex>
  );
}
