import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { JobHead, Step } from "../api/types";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { ScheduleView } from "./ScheduleView";
import { StandsView } from "./StandsView";
import { StepCard } from "./StepCard";
import { StepMark } from "./StepMark";
import { useSchedule } from "./useSchedule";
import { useStands } from "./useStands";

const NARROW = "(max-width: 47.99em)";

/** Every step in order; the chosen one opens beside the list, on a phone over it. */
export default function StepList({ job }: { job: JobHead }) {
  const steps = useShown((s) => s.result?.steps ?? NONE);
  const [picked, setPicked] = useState<string | null>(null);
  const card = useRef<HTMLDivElement>(null);
  // on a phone the card stands over the list: it comes into sight when it is drawn
  useEffect(() => {
    if (picked && matchMedia(NARROW).matches) card.current?.scrollIntoView({ block: "start" });
  }, [picked]);
  const stands = useStands((s) => s.open);
  const schedule = useSchedule((s) => s.open && s.found !== null);
  if (stands) return <StandsView />;
  if (schedule) return <ScheduleView />;
  const chosen = steps.find((s) => s.id === picked) ?? steps.find((s) => s.status === "open") ?? steps[0];
  if (!chosen) return <Text p="6">No steps yet: the design makes them.</Text>;
  return (
    <Flex height="100%" minH="0" direction={{ base: "column", md: "row" }}>
      <Box
        flex={{ base: "none", md: "1" }}
        minW="0"
        overflowY="auto"
        as="ol"
        listStyle="none"
        py="2"
        borderRightWidth="1px"
        borderColor="rule"
      >
        {steps.map((step, i) => (
          <StepRow
            key={step.id}
            step={step}
            first={steps[i - 1]?.spec.phase !== step.spec.phase}
            open={step.id === chosen.id}
            pick={() => setPicked(step.id)}
          />
        ))}
      </Box>
      <Box ref={card} flex={{ base: "none", md: "1.1" }} minW="0" overflowY="auto" p="4" order={{ base: -1, md: 0 }}>
        <StepCard key={chosen.id} job={job} step={chosen} steps={steps} />
      </Box>
    </Flex>
  );
}

function StepRow({ step, first, open, pick }: { step: Step; first: boolean; open: boolean; pick: () => void }) {
  return (
    <Box as="li">
      {first && (
        <Text px="3" pt="2" fontFamily="heading" fontSize="15px" color="faint">
          {step.spec.phase}
        </Text>
      )}
      <Flex
        as="button"
        width="100%"
        textAlign="start"
        align="center"
        gap="2"
        px="3"
        minH="36px"
        bg={open ? "panel" : "transparent"}
        aria-pressed={open}
        onClick={pick}
      >
        <StepMark status={step.status} />
        <Text flex="1" fontSize="15px">
          {step.spec.title}
          {step.side && <span style={{ opacity: 0.75 }}> ({step.side})</span>}
        </Text>
        <Text fontSize="13px" color="faint">
          {step.spec.hold && step.status !== "done" ? "hold point, " : ""}
          {step.status}
        </Text>
      </Flex>
    </Box>
  );
}
