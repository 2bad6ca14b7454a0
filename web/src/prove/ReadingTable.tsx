import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { AskedReading, JobHead } from "../api/types";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Act, PlainChoice } from "../fields/controls";
import { ReadingRow, readsOf, WIDTHS } from "./ReadingRow";
import { type Reads, useInstrument } from "./useInstrument";

const LABELS: Record<Reads, string> = {
  length: "Lengths read with",
  thickness: "Thicknesses read with",
  level: "Levels read with",
  deg: "Angles read with",
  kg: "Weights read with",
  "N m": "Torque read with",
  turns: "Turns read by",
};

/** As-built readings of one side beside their plan, by what they are readings of; what is outside asks for a decision. */
export default function ReadingTable({ job }: { job: JobHead }) {
  const side = useBench((s) => s.side);
  const readings = useShown((s) => s.result?.readings ?? NONE).filter((r) => r.side === side);
  const kinds = [...new Set(readings.map(readsOf))];
  return (
    <Box height="100%" overflow="auto" bg="panel" borderTopWidth="1px" borderColor="rule" px="3" py="2">
      <Box minW="fit-content">
        <Flex gap="2" mb="2" wrap="wrap">
          {kinds.map((kind) => (
            <ReadWith key={kind} kind={kind} />
          ))}
        </Flex>
        <Box display="grid" gridTemplateColumns={WIDTHS} gap="2" fontSize="13px" color="faint" mb="1">
          <span>{side} side, as built</span>
          <span>planned</span>
          <span>measured</span>
          <span>off by</span>
          <span>so</span>
        </Box>
        {readings.length === 0 && <Text>Nothing to read yet: the design's cuts and plates ask for readings.</Text>}
        {[...byAbout(readings)].map(([about, rows]) => (
          <Readings key={about} job={job} about={about} rows={rows} />
        ))}
      </Box>
    </Box>
  );
}

function byAbout(readings: readonly AskedReading[]): Map<string, AskedReading[]> {
  const out = new Map<string, AskedReading[]>();
  for (const reading of readings) out.set(reading.about, [...(out.get(reading.about) ?? []), reading]);
  return out;
}

/** Readings of one thing; those that nobody has to take stay folded until they are wanted. */
function Readings({ job, about, rows }: { job: JobHead; about: string; rows: readonly AskedReading[] }) {
  const [open, setOpen] = useState(false);
  const folded = rows.filter((r) => r.spec.extra && r.value === null);
  const shown = open ? rows : rows.filter((r) => !folded.includes(r));
  return (
    <Box as="section" aria-label={`${about}, readings`} mb="2">
      <Flex align="center" gap="3" mt="2">
        <Text fontFamily="heading" fontWeight="600" fontSize="14px">
          {about}
        </Text>
        {folded.length > 0 && (
          <Act slight onClick={() => setOpen(!open)}>
            {open ? "fewer" : `${folded.length} more that can be read`}
          </Act>
        )}
      </Flex>
      {shown.map((reading) => (
        <ReadingRow key={reading.id} job={job} reading={reading} />
      ))}
    </Box>
  );
}

/** The instrument in hand: how sure it is counts in every verdict. */
function ReadWith({ kind }: { kind: Reads }) {
  const { id, choices, choose, zeroed } = useInstrument(kind);
  return (
    <Box w="9.4rem">
      <PlainChoice free label={LABELS[kind]} value={id} choices={choices} choose={choose} />
      {zeroed && (
        <Text fontSize="12px" color="faint">
          zero it on the rail first
        </Text>
      )}
    </Box>
  );
}
