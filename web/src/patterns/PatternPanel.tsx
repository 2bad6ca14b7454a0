import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { JobHead } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { Group, PlainChoice, PlainTick } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { AssemblyGroup } from "./AssemblyGroup";
import { CopeGroup } from "./CopeGroup";
import { GaugeGroup } from "./GaugeGroup";
import { NestGroup } from "./NestGroup";
import { OrderGroup } from "./OrderGroup";
import { useNest } from "./useNest";
import { usePatterns } from "./usePatterns";

const PAPERS = [
  ["a4", "A4"],
  ["a3", "A3"],
  ["letter", "Letter"],
  ["legal", "Legal"],
  ["roll", "24 in roll"],
] as const;

const UNITS = [
  ["mm", "millimetres"],
  ["in", "inches"],
] as const;

/** Which plates to cut: pick one to see it, take one or all as files. */
export default function PatternPanel({ job }: { job: JobHead }) {
  const show = useNest((s) => s.show);
  const { optionId } = usePick("optionId");
  const { patterns, chosen, choose, paper, once, torch, pages, print, load, trouble } = usePatterns();
  const [unit, setUnit] = useState<"mm" | "in">("mm");
  const draft = useBench((s) => s.history.now);
  // biome-ignore lint/correctness/useExhaustiveDependencies: patterns follow the draft
  useEffect(() => void load(), [draft, load]);
  const base = `/api/options/${optionId}/patterns`;
  const own = patterns.find((p) => p.id === chosen);
  return (
    <>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      <Group title="All patterns">
        <Flex gap="2" align="end">
          <Box flex="1">
            <PlainChoice
              free
              label="Paper"
              value={paper}
              choices={PAPERS}
              choose={(value) => print({ paper: PAPERS.find(([id]) => id === value)?.[0] ?? "a4" })}
            />
          </Box>
          <FileLink href={`${base}.pdf?paper=${paper}&once=${once}`} name="PDF 1:1, all" />
        </Flex>
        <PlainTick label="Mirrored pairs once, to turn over" value={once} take={(own) => print({ once: own })} />
        {pages !== null && pages > 0 && (
          <Text fontSize="14px" color="faint">
            {pages === 1 ? "1 page" : `${pages} pages`} to print
          </Text>
        )}
        <Flex gap="2" align="end" mt="2">
          <Box flex="1">
            <PlainChoice
              free
              label="DXF drawn in"
              value={unit}
              choices={UNITS}
              choose={(u) => setUnit(u === "in" ? "in" : "mm")}
            />
          </Box>
          <FileLink href={`${base}.zip?unit=${unit}&torch=${torch}`} name="Every DXF, zipped" />
        </Flex>
        <PlainTick
          label="Cut lines for the torch's middle, by what a cut takes"
          value={torch}
          take={(own) => print({ torch: own })}
        />
        <Flex mt="2">
          <FileLink
            href={`/api/options/${optionId}/everything.zip?paper=${paper}&unit=${unit}&once=${once}&torch=${torch}`}
            name="Everything in one ZIP"
          />
        </Flex>
      </Group>
      <Group title="Pick one">
        {patterns.length === 0 && (
          <Text fontSize="14px">Nothing to cut yet: add a notch or a boxing plate in Cut.</Text>
        )}
        <Box maxH="264px" overflowY="auto">
          {patterns.map((pattern) => (
            <Flex
              key={pattern.id}
              as="button"
              width="100%"
              textAlign="start"
              minH="36px"
              px="2"
              align="center"
              gap="2"
              borderBottomWidth="1px"
              borderColor="rule"
              bg={pattern.id === chosen ? "sheet" : "transparent"}
              fontWeight={pattern.id === chosen ? "600" : "400"}
              aria-pressed={pattern.id === chosen}
              onClick={() => {
                show(null);
                choose(pattern.id);
              }}
            >
              <Box as="span" borderWidth="1.5px" borderColor="ink" px="1.5" fontSize="13px" aria-label={pattern.side}>
                {pattern.side === "left" ? "L" : "R"}
              </Box>
              <Text fontSize="14px">{pattern.title}</Text>
            </Flex>
          ))}
        </Box>
      </Group>
      {own && (
        <Group title="This pattern">
          <Flex gap="2" wrap="wrap">
            {(["dxf", "svg"] as const).map((kind) => (
              <FileLink
                key={kind}
                href={`${base}.${kind}?unit=${unit}&torch=${torch}&id=${encodeURIComponent(own.id)}`}
                name={kind.toUpperCase()}
              />
            ))}
            <FileLink href={`${base}.pdf?paper=${paper}&id=${encodeURIComponent(own.id)}`} name="PDF 1:1" />
          </Flex>
        </Group>
      )}
      <NestGroup job={job} />
      <AssemblyGroup />
      <GaugeGroup job={job} />
      <OrderGroup job={job} />
      <CopeGroup />
    </>
  );
}
