import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { AskedReading, Check, JobHead } from "../api/types";
import { useMay } from "../app/session";
import { saveRevision } from "../draft/autosave";
import { useBench, usePick } from "../draft/store";
import { evaluateAgain, NONE, useShown } from "../evaluation/useEvaluation";
import { Act, PlainChoice } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { VerdictMark } from "../margins/VerdictMark";
import { showDeviation, showQuantity } from "../units/show";
import { reasonOf } from "./reason";
import { type Reads, useInstrument } from "./useInstrument";
import { useRefreshLog } from "./useLog";

const WIDTHS = "minmax(9rem, 1.2fr) 4.6rem 6.6rem 8rem minmax(9rem, 1fr)";

/** As-built readings of one rail beside their plan; what is outside its tolerance asks for a decision. */
export default function ReadingTable({ job }: { job: JobHead }) {
  const side = useBench((s) => s.side);
  const readings = useShown((s) => s.result?.readings ?? NONE).filter((r) => r.side === side);
  return (
    <Box height="100%" overflow="auto" bg="panel" borderTopWidth="1px" borderColor="rule" px="3" py="2">
      <Box minW="fit-content">
        <Flex gap="3" mb="2">
          <ReadWith kind="length" label="Lengths read with" />
          <ReadWith kind="thickness" label="Thicknesses read with" />
        </Flex>
        <Box display="grid" gridTemplateColumns={WIDTHS} gap="2" fontSize="13px" color="faint" mb="1">
          <span>{side} rail, as built</span>
          <span>planned</span>
          <span>measured</span>
          <span>off by</span>
          <span>so</span>
        </Box>
        {readings.length === 0 && <Text>Nothing to read yet: the design's cuts and plates ask for readings.</Text>}
        {readings.map((reading) => (
          <ReadingRow key={reading.id} job={job} reading={reading} />
        ))}
      </Box>
    </Box>
  );
}

/** The instrument in hand: how finely it is read counts in every verdict. */
function ReadWith({ kind, label }: { kind: Reads; label: string }) {
  const { id, choices, choose } = useInstrument(kind);
  return (
    <Box w="11rem">
      <PlainChoice free label={label} value={id} choices={choices} choose={choose} />
    </Box>
  );
}

function ReadingRow({ job, reading }: { job: JobHead; reading: AskedReading }) {
  const { optionId, style } = usePick("optionId", "style");
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  const [trouble, setTrouble] = useState("");
  const id = `${reading.spec.limit_id}:${reading.operation}-${reading.spec.key}:${reading.side}@as-built`;
  const check = useShown((s) => s.result?.checks.find((c) => c.id === id));
  const kind = reading.spec.limit_id === "as-built-plate" ? "thickness" : "length";
  const used = useInstrument(kind);
  const take = async (value_mm: number, text: string) => {
    const { operation, side } = reading;
    const body = {
      operation,
      side,
      key: reading.spec.key,
      value_mm,
      text,
      ...used.read,
      note: "",
    };
    try {
      if (may.design && !(await saveRevision("before it was signed"))) return;
      await api.POST("/api/options/{option_id}/readings", {
        params: { path: { option_id: optionId } },
        body,
      });
      await refresh();
      setTrouble("");
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  const off = reading.value_mm === null ? null : reading.value_mm - reading.spec.planned_mm;
  return (
    <Box
      display="grid"
      gridTemplateColumns={WIDTHS}
      gap="2"
      alignItems="start"
      py="1"
      borderTopWidth="1px"
      borderColor="rule"
      fontSize="14px"
    >
      <Box>
        <Text>{reading.spec.name}</Text>
        <Text fontSize="13px" color="faint">
          from {reading.spec.datum}
        </Text>
      </Box>
      <Text fontVariantNumeric="tabular-nums">{showQuantity(reading.spec.planned_mm, kind, style)}</Text>
      <Box>
        {may.log ? (
          <PlainQuantity
            hideLabel
            kind={kind}
            label={`${reading.spec.name}, ${reading.side}, measured`}
            value={reading.value_mm}
            take={(mm, text) => void take(mm, text)}
          />
        ) : (
          <Text>{reading.value_mm === null ? "not taken" : showQuantity(reading.value_mm, kind, style)}</Text>
        )}
        <Text role="alert" color="removed" fontSize="13px">
          {trouble}
        </Text>
      </Box>
      <Flex gap="1" align="baseline" fontVariantNumeric="tabular-nums">
        {check && <VerdictMark verdict={check.verdict} />}
        <Box>
          {off !== null && `${showDeviation(off, style)} `}
          {check?.verdict}
        </Box>
      </Flex>
      <Decide job={job} reading={reading} check={check} />
    </Box>
  );
}

/** Accept with a reason, or send it back; logged either way. */
function Decide({ job, reading, check }: { job: JobHead; reading: AskedReading; check?: Check }) {
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  const [reason, setReason] = useState("");
  if (reading.decision)
    return <Text>{reading.decision === "accept" ? "accepted with a reason" : "to be reworked"}</Text>;
  if (check?.verdict !== "fails" || !may.decide) return <span />;
  const decide = async (choice: "accept" | "rework") => {
    const params = { path: { job_id: job.id } };
    await api.POST("/api/jobs/{job_id}/reasons", { params, body: { subject: reading.id, reason, choice } });
    await refresh();
    evaluateAgain();
  };
  return (
    <Box>
      <PlainWords label="Reason" value={reason} take={setReason} />
      <Flex gap="1" mt="1">
        <Act off={!reason.trim()} onClick={() => void decide("accept")}>
          Accept
        </Act>
        <Act off={!reason.trim()} onClick={() => void decide("rework")}>
          Rework
        </Act>
      </Flex>
    </Box>
  );
}
