import { Box, Flex, Text } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { api } from "../api/client";
import type { JobHead, Style } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { evaluateAgain, useShown } from "../evaluation/useEvaluation";
import { Act, Group } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { showLength, showQuantity } from "../units/show";
import { reasonOf } from "./reason";
import { KINDS } from "./useInstrument";
import { useLog, useRefreshLog } from "./useLog";

type Entry = JobHead["log"][number];

const NEWEST = 12;

/** The append-only log; a wrong entry is taken back by another. */
export function LogList({ job }: { job: JobHead }) {
  const entries = useLog(job.id).data ?? [];
  const names = useNames();
  const [all, setAll] = useState(false);
  const shown = [...entries].reverse().slice(0, all ? entries.length : NEWEST);
  const gone = new Set(entries.flatMap((e) => (e.kind === "withdrawal" ? [e.entry] : [])));
  return (
    <Group title="Log">
      {entries.length === 0 && <Text fontSize="14px">Nothing is written yet.</Text>}
      {shown.map((entry) => (
        <LogRow key={entry.number} job={job} entry={entry} names={names} gone={gone.has(entry.number)} />
      ))}
      {shown.length < entries.length && <Act onClick={() => setAll(true)}>All {entries.length} entries</Act>}
    </Group>
  );
}

function LogRow(props: { job: JobHead; entry: Entry; names: Names; gone: boolean }) {
  const { job, entry, names, gone } = props;
  const style = useBench((s) => s.style);
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const [trouble, setTrouble] = useState("");
  const takeBack = async () => {
    const params = { path: { job_id: job.id } };
    try {
      await api.POST("/api/jobs/{job_id}/withdraw", { params, body: { entry: entry.number, reason } });
      await refresh();
      setOpen(false);
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  return (
    <Box py="1" borderBottomWidth="1px" borderColor="rule" fontSize="14px">
      <Flex gap="2" align="start">
        <Text flex="1" textDecoration={gone ? "line-through" : undefined}>
          <b>{entry.number}</b> {wordsOf(entry, names, style)}
          {entry.imported && (
            <Text as="span" color="faint">
              {" "}
              (not written here: imported {entry.imported})
            </Text>
          )}
        </Text>
        {may.log && !gone && entry.kind !== "withdrawal" && <Act onClick={() => setOpen(!open)}>Take back</Act>}
      </Flex>
      <Text fontSize="13px" color="faint">
        {entry.by}, {(entry.done_at || entry.at).replace("T", " ").slice(0, 16)}
        {entry.clock && `, by a clock that is ${entry.clock}`}
      </Text>
      {open && (
        <Box mt="1">
          <PlainWords label="Because" value={reason} take={setReason} />
          <Text role="alert" color="removed">
            {trouble}
          </Text>
          <Act off={!reason.trim()} onClick={() => void takeBack()}>
            Take entry {entry.number} back
          </Act>
        </Box>
      )}
    </Box>
  );
}

type Names = ReturnType<typeof useNames>;

/** What the log's tags are called: readings, points of the frame and steps. */
function useNames() {
  const result = useShown((s) => s.result);
  const features = useBench((s) => s.history.now.survey.features);
  return useMemo(() => {
    const readings = new Map(result?.readings.map((r) => [`${r.operation}/${r.spec.key}`, r.spec.name]));
    const steps = new Map(result?.steps.map((s) => [s.id, s.spec.title]));
    const points = new Map(features.map((f) => [f.id, f.name]));
    return { readings, steps, points };
  }, [result, features]);
}

function wordsOf(entry: Entry, names: Names, style: Style): string {
  const point = (at: { feature_id: string; side: string }) =>
    `${names.points.get(at.feature_id) ?? at.feature_id}, ${at.side}`;
  switch (entry.kind) {
    case "reading": {
      const name = names.readings.get(`${entry.operation}/${entry.key}`) ?? `${entry.key} of ${entry.operation}`;
      const again = entry.again ? ", once more" : "";
      return `read ${name}, ${entry.side}${again}: ${showQuantity(entry.value, KINDS[entry.unit], style)}${entry.unit === "turns" ? " turns" : ""}`;
    }
    case "length":
      return `taped ${point(entry.start)} to ${point(entry.end)}: ${showLength(entry.value, style)}`;
    case "level":
      return `levelled ${point(entry.point)}: ${showLength(entry.value, style)}`;
    case "sign-off":
      return `signed ${names.steps.get(entry.step) ?? entry.step}${entry.note && `: ${entry.note}`}`;
    case "override":
      return `passed ${entry.subject}: ${entry.reason}`;
    case "decision":
      return `${entry.choice === "accept" ? "accepted" : "sent back"} ${entry.subject}: ${entry.reason}`;
    case "withdrawal":
      return `took back entry ${entry.entry}: ${entry.reason}`;
    case "part":
      return `${entry.here ? "has in hand, measured" : "does not have"}: ${entry.part.replace("/", " ")}${entry.text && `, ${entry.text}`}`;
    case "weld":
      return `welded ${entry.joint}: ${[entry.process, entry.wire, `by ${entry.operator}`, entry.defect].filter(Boolean).join(", ")}`;
    case "bolts":
      return `drew the bolts of ${entry.joint}${entry.marked ? ", marked" : ""}`;
    case "on-the-road":
      return `first driven on ${entry.first}`;
    case "inspection":
      return `after ${entry.km} km, ${entry.what}: ${entry.ok ? "well" : "not well"}${entry.found && `, ${entry.found}`}`;
    case "paint":
      return `painted ${entry.zone}: ${entry.coats} ${entry.coats === 1 ? "coat" : "coats"}`;
    case "stop":
      return `stopped the job: ${entry.reason}`;
    case "go-on":
      return `let it go on: ${entry.reason}`;
  }
  const step = names.steps.get(entry.step) ?? entry.step;
  switch (entry.kind) {
    case "note":
      return `${step}: ${entry.text}`;
    case "photo":
      return `photo of ${step}${entry.text && `: ${entry.text}`}`;
    case "rework":
      return `did ${step} again, ${entry.minutes} minutes: ${entry.cause}${entry.text && `, ${entry.text}`}`;
    case "left-off":
      return `left off at ${step}${entry.text && `: ${entry.text}`}`;
  }
}
