import "./bench.css";
import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useMemo } from "react";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { startAutosave } from "../draft/autosave";
import { Strays } from "../draft/Strays";
import { isRevised, useBench, usePick } from "../draft/store";
import { SectionView } from "../drawing/SectionView";
import { NONE, startEvaluation, useShown } from "../evaluation/useEvaluation";
import { Help } from "../help/Help";
import { count, grouped } from "../margins/group";
import { MarginColumn } from "../margins/MarginColumn";
import { Revisions } from "../revisions/Revisions";
import { useSweepChecks } from "../sweep/useSweep";
import { startFetchingAhead } from "./ahead";
import { Centre } from "./Centre";
import { useKeys } from "./keys";
import { startStageMemory } from "./lastStage";
import "./print.css";
import { StageList } from "./StageList";
import { TopBar } from "./TopBar";
import { TITLES } from "./titles";
import { useOpenJob } from "./useOpenJob";

/** The bench: stages to the left, the sheet in the middle, margins and section to the right. */
export default function Bench() {
  const { job, trouble } = useOpenJob();
  const opened = useBench((s) => s.optionId !== 0);
  const may = useMay();
  useKeys();
  useEffect(startEvaluation, []);
  useEffect(startStageMemory, []);
  useEffect(startFetchingAhead, []);
  useEffect(() => {
    if (job) document.title = `${job.name}, Nodulant`;
    return () => {
      document.title = "Nodulant";
    };
  }, [job]);
  useEffect(() => startAutosave(may.design), [may.design]);
  if (trouble) return <Text p="10">{trouble}</Text>;
  if (!job || !opened) return <Text p="10">Opening the job</Text>;
  return (
    <Flex className="bench" direction="column" height={{ base: "auto", md: "100dvh" }} minW="0">
      <TopBar job={job} />
      <PrintHead job={job} />
      <Strays job={job} />
      <Box
        className="bench-grid"
        flex="1"
        minH="0"
        display="grid"
        gridTemplateColumns={{
          base: "minmax(0, 1fr)",
          md: "300px minmax(0, 1fr)",
          xl: "324px minmax(0, 1fr) 310px",
        }}
      >
        <Flex
          direction="column"
          position="relative"
          bg="panel"
          borderRightWidth="1px"
          borderColor="rule"
          minH="0"
          as="nav"
          aria-label="Stages"
        >
          <StageList job={job} />
        </Flex>
        <Centre job={job} />
        <Margins />
      </Box>
      <Help />
      <Revisions job={job} />
    </Flex>
  );
}

/** What a printed stage is of; on the screen the top bar says it. */
function PrintHead({ job }: { job: JobHead }) {
  const { optionId, stage, base } = usePick("optionId", "stage", "base");
  const revised = useBench(isRevised);
  const option = job.options.find((o) => o.id === optionId);
  const day = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" }).format(new Date());
  const what = `${job.name}, ${option?.name}, ${revised ? "" : "changed after "}revision ${base}: ${TITLES[stage]}.`;
  return <div className="print-head" data-words={`${what} Printed ${day}. ${CAUTION}`} />;
}

const CAUTION = "Figures of a plan; local rules and licensed practice decide.";

/** Beside the sheet where there is room; on a tablet a drawer that slides over it. */
function Margins() {
  const drawer = useBench((s) => s.drawer);
  return (
    <>
      <DrawerButton />
      <Flex
        className="bench-margins"
        direction="column"
        bg="panel"
        borderLeftWidth="1px"
        borderColor="rule"
        minH="0"
        display={{ base: drawer ? "flex" : "none", xl: "flex" }}
        position={{ base: "fixed", xl: "static" }}
        zIndex="2"
        top="48px"
        bottom="0"
        right="0"
        width={{ base: "min(340px, 100vw)", xl: "auto" }}
        pb={{ base: "14", xl: "0" }}
      >
        <MarginColumn />
        <SectionView />
      </Flex>
    </>
  );
}

/** Opens the margins where they are a drawer, and tells the worst of them meanwhile. */
function DrawerButton() {
  const { drawer, put } = usePick("drawer", "put");
  const own = useShown((s) => s.result?.checks ?? NONE);
  const sweep = useSweepChecks();
  const fails = useMemo(() => count(grouped([...own, ...sweep]), "fails"), [own, sweep]);
  return (
    <Box
      className="drawer-button"
      display={{ base: "block", xl: "none" }}
      position="fixed"
      right="2"
      bottom="2"
      zIndex="3"
    >
      <Box
        as="button"
        bg="chalk"
        color="onchalk"
        minH="44px"
        px="4"
        fontWeight="600"
        aria-expanded={drawer}
        onClick={() => put({ drawer: !drawer })}
      >
        Margins: {fails} fail
      </Box>
    </Box>
  );
}
