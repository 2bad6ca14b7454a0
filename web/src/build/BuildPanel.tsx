import { Box, Flex, Text } from "@chakra-ui/react";
import { Link } from "react-router";
import type { JobHead } from "../api/types";
import { usePick } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { PartsGroup } from "./PartsGroup";
import { StandsGroup } from "./StandsGroup";
import { TimeGroup } from "./TimeGroup";
import { WeldingFields } from "./WeldingFields";

const PAPER = [
  ["plan", "Whole plan, PDF"],
  ["now", "What is open, PDF"],
  ["holds", "Hold points, PDF"],
  ["cautions", "Cautions, PDF"],
] as const;

/** How far the build is, and what always holds while working. */
export default function BuildPanel({ job }: { job: JobHead }) {
  const steps = useShown((s) => s.result?.steps ?? NONE);
  const locked = useShown((s) => s.result?.teardown_locked ?? true);
  const left = steps.filter((s) => s.status === "open" || s.status === "waiting");
  const minutes = left.reduce((sum, s) => sum + s.spec.minutes, 0);
  const next = steps.find((s) => s.status === "open");
  const { optionId, jobId } = usePick("optionId", "jobId");
  return (
    <>
      <Text fontSize="15px">
        {steps.length - left.length} of {steps.length} steps done; about {Math.round(minutes / 30) / 2} hours of work
        left.
      </Text>
      {locked && (
        <Text mt="2" p="2" bg="sheet" borderLeftWidth="4px" borderColor="removed" fontSize="14px">
          <b>Teardown is locked</b>: readings that teardown destroys are missing. See Survey.
        </Text>
      )}
      {next && (
        <Group title="Next">
          <Text fontWeight="600">
            {next.spec.title} {next.side ?? ""}
          </Text>
          <Text fontSize="14px">{next.spec.detail}</Text>
        </Group>
      )}
      <Box mt="2">
        <Link to={`/jobs/${jobId}/floor?option=${optionId}`} style={{ textDecoration: "underline" }}>
          The floor: one step at a time, on the phone
        </Link>
      </Box>
      <PartsGroup job={job} />
      <StandsGroup />
      <TimeGroup job={job} />
      <WeldingFields job={job} />
      <Group title="On paper">
        <Flex gap="2" wrap="wrap">
          {PAPER.map(([sheet, name]) => (
            <FileLink key={sheet} href={`/api/options/${optionId}/steps.pdf?sheet=${sheet}`} name={name} />
          ))}
          <FileLink href={`/api/options/${optionId}/heat.pdf`} name="Welding in sequence, PDF" />
          <FileLink href={`/api/options/${optionId}/labels.pdf?of=steps`} name="Labels of steps, PDF" />
          <FileLink href={`/api/options/${optionId}/labels.pdf?of=parts`} name="Labels of parts, PDF" />
        </Flex>
      </Group>
      <Group title="Always">
        <Box as="ul" ps="4" fontSize="14px" listStyleType="'· '">
          <li>Rated stands on flat concrete, never only a jack; wheels chocked.</li>
          <li>Supports move from the axle to the frame before springs are freed.</li>
          <li>Tack, check, then weld. Tacks are never the sole support over a person.</li>
          <li>Battery and computers off before arc welding; fire watch for 30 minutes after.</li>
        </Box>
        <Text fontSize="13px" color="faint" mt="2">
          These are planning figures from simplified models. Frame and steering work is safety-critical and regulated:
          check local rules before cutting, have a licensed engineer or inspector review where they require it or where
          any check does not hold, and have the welding done by a qualified welder.
        </Text>
      </Group>
    </>
  );
}
