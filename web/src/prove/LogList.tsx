import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { evaluateAgain } from "../evaluation/useEvaluation";
import { Act, Group } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { reasonOf } from "./reason";
import { useLog, useRefreshLog } from "./useLog";

type Entry = JobHead["log"][number];

/** The append-only log; a wrong entry is taken back by another. */
export function LogList({ job }: { job: JobHead }) {
  const entries = useLog(job.id).data ?? [];
  const gone = new Set(entries.flatMap((e) => (e.kind === "withdrawal" ? [e.entry] : [])));
  return (
    <Group title="Log">
      {entries.length === 0 && <Text fontSize="14px">Nothing is written yet.</Text>}
      {[...entries].reverse().map((entry) => (
        <LogRow key={entry.number} job={job} entry={entry} gone={gone.has(entry.number)} />
      ))}
    </Group>
  );
}

function LogRow({ job, entry, gone }: { job: JobHead; entry: Entry; gone: boolean }) {
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
          <b>{entry.number}</b> {wordsOf(entry)}
        </Text>
        {may.log && !gone && entry.kind !== "withdrawal" && <Act onClick={() => setOpen(!open)}>Take back</Act>}
      </Flex>
      <Text fontSize="13px" color="faint">
        {entry.by}, {entry.at.replace("T", " ").slice(0, 16)}
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

function wordsOf(entry: Entry): string {
  switch (entry.kind) {
    case "reading":
      return `read ${entry.key} ${entry.side} of ${entry.operation}: ${entry.text || `${entry.value_mm} mm`}`;
    case "length":
      return `taped ${entry.start.feature_id} ${entry.start.side} to ${entry.end.feature_id} ${entry.end.side}: ${entry.text || `${entry.value_mm} mm`}`;
    case "sign-off":
      return `signed ${entry.step}${entry.note && `: ${entry.note}`}`;
    case "override":
      return `passed ${entry.subject}: ${entry.reason}`;
    case "decision":
      return `${entry.choice === "accept" ? "accepted" : "sent back"} ${entry.subject}: ${entry.reason}`;
    case "withdrawal":
      return `took back entry ${entry.entry}: ${entry.reason}`;
  }
}
