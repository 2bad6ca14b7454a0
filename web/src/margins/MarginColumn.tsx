import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { Check } from "../api/types";
import { useBench } from "../draft/store";
import { lookAt } from "../drawing/view";
import { useShown } from "../evaluation/useEvaluation";
import { PlainChoice } from "../fields/controls";
import { showLength } from "../units/show";
import { grouped, type Row, shown } from "./group";
import { MarginBar, VerdictMark } from "./VerdictMark";
import { Why } from "./Why";

const FILTERS = [
  ["", "all stages"],
  ["survey", "Survey"],
  ["target", "Target"],
  ["cut", "Cut"],
  ["prove", "Prove"],
] as const;

/** Every check, worst first, by how far it is from its limit. */
export function MarginColumn() {
  const { result, stale, problems, before } = useShown();
  const [stage, setStage] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const rows = grouped(result?.checks ?? []).filter((r) => !stage || r.check.stage === stage);
  const count = (verdict: Check["verdict"]) => rows.filter((r) => r.check.verdict === verdict).length;
  return (
    <Flex direction="column" minH="0" flex="1" as="section" aria-label="Margins">
      <Flex px="3" pt="2" pb="1" align="end" gap="2">
        <Box flex="1">
          <Text fontFamily="heading" fontWeight="600" fontSize="19px" lineHeight="1.1">
            Margins
          </Text>
          <Text fontSize="13px" color="faint">
            {count("fails")} fail, {count("not computed")} not computed, {count("close")} close,{" "}
            {count("holds")} hold
          </Text>
        </Box>
        <Box w="7.5rem">
          <PlainChoice free bare label="Checks of" value={stage} choices={FILTERS} choose={setStage} />
        </Box>
      </Flex>
      {problems.length > 0 && (
        <Box
          role="alert"
          px="3"
          py="1"
          color="removed"
          fontSize="14px"
          borderLeftWidth="4px"
          borderColor="removed"
        >
          {problems.slice(0, 3).map((p) => (
            <Text key={p.pointer + p.message}>
              {p.message}
              {p.expected && `: give ${p.expected}`}
            </Text>
          ))}
          <Text color="faint">The figures below are those before this.</Text>
        </Box>
      )}
      <Box overflowY="auto" flex="1" px="2" pb="3" opacity={stale ? 0.6 : 1} as="ul" listStyle="none">
        {rows.map((row) => (
          <MarginRow
            key={row.key}
            row={row}
            old={before[row.check.id]}
            open={open === row.key}
            toggle={() => {
              setOpen(open === row.key ? null : row.key);
              goTo(row);
            }}
          />
        ))}
      </Box>
      <WorstSpoken row={rows[0]} />
    </Flex>
  );
}

function goTo(row: Row) {
  const { station_mm, pose_mm } = row.check.governs;
  const { put, side } = useBench.getState();
  const own = row.sides === "left" || row.sides === "right" ? row.sides : side;
  put({ side: own });
  if (station_mm != null) {
    put({ stationMm: station_mm });
    lookAt(station_mm);
  }
  if (pose_mm != null) put({ travelMm: 2 * Math.round(pose_mm / 2) });
}

type RowProps = { row: Row; old?: number; open: boolean; toggle: () => void };

function MarginRow({ row, old, open, toggle }: RowProps) {
  const { check, sides } = row;
  const style = useBench((s) => s.style);
  const change = old !== undefined && check.margin !== null ? check.margin - old : 0;
  const tail = [check.state === "as-built" && "as built", sides !== "both" && sides]
    .filter(Boolean)
    .join(", ");
  return (
    <Box as="li" borderBottomWidth="1px" borderColor="rule">
      <Flex
        as="button"
        width="100%"
        textAlign="start"
        align="center"
        gap="2"
        py="1.5"
        px="1"
        aria-expanded={open}
        onClick={toggle}
        _hover={{ bg: "sheet" }}
        cursor="pointer"
      >
        <VerdictMark verdict={check.verdict} />
        <Box flex="1" minW="0">
          <Text fontSize="14px" lineHeight="1.2">
            {check.title}
            {tail && <span style={{ opacity: 0.75 }}> ({tail})</span>}
          </Text>
          <Text fontSize="13px" color="faint" lineHeight="1.3" fontVariantNumeric="tabular-nums">
            {check.verdict}
            {check.value !== null && `, ${shown(check.value, check.unit, (mm) => showLength(mm, style))}`}
            {Math.abs(change) > 5e-4 && (
              <span style={{ fontWeight: 600 }}>{change > 0 ? " ▴ better" : " ▾ worse"}</span>
            )}
          </Text>
        </Box>
        <MarginBar margin={check.margin} />
      </Flex>
      {open && <Why check={check} />}
    </Box>
  );
}

/** Tells the worst margin after a pause, once, politely. */
function WorstSpoken({ row }: { row?: Row }) {
  const [words, setWords] = useState("");
  const text = row ? `${row.check.title}: ${row.check.verdict}` : "";
  useEffect(() => {
    const timer = setTimeout(() => setWords(text), 1200);
    return () => clearTimeout(timer);
  }, [text]);
  return (
    <Box
      aria-live="polite"
      position="absolute"
      width="1px"
      height="1px"
      overflow="hidden"
      clipPath="inset(50%)"
    >
      {words}
    </Box>
  );
}
