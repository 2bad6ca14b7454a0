import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { AskedReading, Check, JobHead, Style } from "../api/types";
import { useMay } from "../app/session";
import { saveRevision } from "../draft/autosave";
import { usePick } from "../draft/store";
import { evaluateAgain } from "../evaluation/useEvaluation";
import { Act } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { VerdictMark } from "../margins/VerdictMark";
import { type Kind, showDeviation, showQuantity } from "../units/show";
import { Decide } from "./Decide";
import { LiveReading } from "./LiveReading";
import { reasonOf } from "./reason";
import { wayOf } from "./tapeWay";
import { KINDS, type Reads, useInstrument } from "./useInstrument";
import { useRefreshLog } from "./useLog";

export const WIDTHS = "minmax(9rem, 1.2fr) 4.8rem 6.8rem 9.4rem minmax(9rem, 1fr)";
const MARKS = { holds: "holds", fails: "fails", "cannot tell": "not computed" } as const;

/** What is read, so that the right instrument is in hand. */
export function readsOf(reading: AskedReading): Reads {
  const { unit, limit_id } = reading.spec;
  if (unit !== "mm") return unit;
  return limit_id === "as-built-plate" ? "thickness" : "length";
}

/** One reading beside its plan: typed, repeated, judged by what its instrument can tell, decided. */
export function ReadingRow({ job, reading }: { job: JobHead; reading: AskedReading }) {
  const { optionId, style } = usePick("optionId", "style");
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  const [trouble, setTrouble] = useState("");
  const [again, setAgain] = useState(false);
  const reads = readsOf(reading);
  const used = useInstrument(reads, reading.read_with);
  const { spec, side, value } = reading;
  const kind: Kind = reads === "thickness" ? "thickness" : KINDS[spec.unit];
  const { sign, word } = wayOf(spec);
  const take = async (typed: number, text: string) => {
    const { operation } = reading;
    const body = { operation, side, key: spec.key, value: typed, unit: spec.unit, text, again, ...used.read, note: "" };
    try {
      if (may.design && !(await saveRevision("before it was signed"))) return;
      await api.POST("/api/options/{option_id}/readings", { params: { path: { option_id: optionId } }, body });
      await refresh();
      setTrouble("");
      setAgain(false);
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
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
        <Text>{spec.name}</Text>
        <Text fontSize="13px" color="faint">
          from {spec.datum}
        </Text>
      </Box>
      <Text fontVariantNumeric="tabular-nums">
        {showQuantity(sign * spec.planned, kind, style)}
        {word}
      </Text>
      <Box>
        {may.log ? (
          <PlainQuantity
            key={again ? "again" : "first"}
            hideLabel
            kind={kind}
            label={`${spec.name}, ${side}, ${again ? "once more" : "measured"}`}
            value={again || value === null ? null : sign * value}
            take={(typed, text) => void take(sign * typed, `${text}${word}`)}
          />
        ) : (
          <Text>{value === null ? "not taken" : `${showQuantity(sign * value, kind, style)}${word}`}</Text>
        )}
        {may.log && (
          <LiveReading
            instrument={used.id}
            name={used.read.instrument}
            zeroed={used.zeroed}
            held={{ at: reading.id, planned: spec.planned, rearward: 0, rightward: 0 }}
            kind={kind}
            take={(typed, text) => void take(typed, text)}
          />
        )}
        {may.log && value !== null && (
          <Act slight onClick={() => setAgain(!again)}>
            {again ? "leave it as it is" : "read it once more"}
          </Act>
        )}
        <Text role="alert" color="removed" fontSize="13px">
          {trouble}
        </Text>
      </Box>
      <Says reading={reading} sign={sign} kind={kind} style={style} />
      <Decide job={job} reading={reading} />
    </Box>
  );
}

/** How far off, how sure, and whether that is enough to say so. */
function Says({ reading, sign, kind, style }: { reading: AskedReading; sign: 1 | -1; kind: Kind; style: Style }) {
  if (reading.value === null || !reading.answer) return <span />;
  const off = sign * (reading.value - reading.spec.planned);
  const verdict: Check["verdict"] = MARKS[reading.answer];
  return (
    <Box>
      <Flex gap="1" align="baseline" fontVariantNumeric="tabular-nums">
        <VerdictMark verdict={verdict} />
        <Box>
          {offBy(off, kind, style)} {reading.answer}
          {reading.count > 1 && `, of ${reading.count}`}
        </Box>
      </Flex>
      {(reading.answer !== "holds" || reading.again) && (
        <Text fontSize="13px" color="faint">
          {reading.words}
        </Text>
      )}
    </Box>
  );
}

function offBy(off: number, kind: Kind, style: Style): string {
  if (kind === "length" || kind === "thickness") return showDeviation(off, style);
  return `${off < 0 ? "-" : "+"}${showQuantity(Math.abs(off), kind, style)}`;
}
