import { Box, Flex, Spinner } from "@chakra-ui/react";
import { lazy, Suspense } from "react";
import type { JobHead } from "../api/types";
import { usePick } from "../draft/store";
import { Sheet } from "../drawing/Sheet";
import { StrengthStrip } from "../drawing/StrengthStrip";
import { TravelBar } from "../drawing/TravelBar";
import { TravelControls } from "../travel/TravelControls";
import { SheetTools } from "./SheetTools";

const SurveyTables = lazy(() => import("../survey/SurveyTables"));
const TravelSheet = lazy(() => import("../travel/TravelSheet"));
const SteerDock = lazy(() => import("../steer/SteerDock"));
const SpaceView = lazy(() => import("../space/SpaceView"));
const MapDock = lazy(() => import("../sweep/MapDock"));
const CurveDock = lazy(() => import("../travel/CurveDock"));
const PatternView = lazy(() => import("../patterns/PatternView"));
const StepList = lazy(() => import("../build/StepList"));
const ReadingTable = lazy(() => import("../prove/ReadingTable"));

/** What lies on the bench: the sheet with the stage's own dock under it, or the stage's own sheet. */
export function Centre({ job }: { job: JobHead }) {
  const { stage, inSpace } = usePick("stage", "inSpace");
  if (stage === "patterns" || stage === "build") {
    return (
      <Flex direction="column" minH={{ base: "auto", md: "0" }} minW="0" bg="sheet" as="main">
        <Suspense fallback={<Spinner m="6" />}>
          {stage === "patterns" ? <PatternView /> : <StepList job={job} />}
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
            {inSpace || stage === "sweep" ? <SpaceView /> : <TravelSheet />}
          </Box>
          <Box height="222px" minH="0">
            <Dock />
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
      <Box flex={{ base: "none", md: "1" }} height={{ base: "420px", md: "auto" }} minH="0">
        <Sheet handles={stage === "cut"} />
      </Box>
      <Box
        height={tables ? { base: "auto", md: "42%" } : "206px"}
        minH="0"
        order={tables ? { base: -1, md: 0 } : undefined}
      >
        <Suspense fallback={<Spinner m="6" />}>
          {stage === "survey" ? <SurveyTables /> : stage === "prove" ? <ReadingTable job={job} /> : <StrengthStrip />}
        </Suspense>
      </Box>
    </Flex>
  );
}
