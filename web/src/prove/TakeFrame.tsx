import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { FrameAt, JobHead } from "../api/types";
import { useBench } from "../draft/store";
import { evaluateAgain, NONE, useShown } from "../evaluation/useEvaluation";
import { PlainChoice } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { LiveReading } from "./LiveReading";
import { heldAt, heldBetween, type Mark } from "./marks";
import { reasonOf } from "./reason";
import { useInstrument } from "./useInstrument";
import type { Held } from "./useLive";
import { useRefreshLog } from "./useLog";

export type When = FrameAt["when"];
export const WHENS: readonly (readonly [When, string])[] = [
  ["", "at any time"],
  ["before", "before the cut"],
  ["tacked", "after the tack"],
  ["done", "at the end"],
];
const HUBS = [
  ["hub-front", "front hub"],
  ["hub-rear", "rear hub"],
] as const;
const SIDES = ["left", "right"] as const;

function usePoints(hubs: boolean) {
  const features = useBench((s) => s.history.now.survey.features);
  const rows = [...features.map((f) => [f.id, f.name] as const), ...(hubs ? HUBS : [])];
  return rows.flatMap(([id, name]) => SIDES.map((side) => [`${id}/${side}`, `${name}, ${side}`] as const));
}

/** Where every mark is, by its id. */
function useMarks(): ReadonlyMap<string, Mark> {
  const marks = useShown((s) => s.result?.marks ?? NONE);
  return new Map(marks.map((m) => [m.id, m]));
}

const pointOf = (id: string) => {
  const [feature_id = "", side] = id.split("/");
  return { feature_id, side: side === "right" ? ("right" as const) : ("left" as const) };
};

/** What every length and level needs: send it, tell what was wrong, begin the next. */
function useTake(job: JobHead) {
  const refresh = useRefreshLog(job.id);
  const [taken, setTaken] = useState(0);
  const [trouble, setTrouble] = useState("");
  const send = async (call: () => Promise<unknown>) => {
    try {
      await call();
      await refresh();
      setTrouble("");
      setTaken(taken + 1);
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  return { taken, trouble, send };
}

/** A tape between two points. */
export function TakeLength({ job, when }: { job: JobHead; when: When }) {
  const choices = usePoints(true);
  const [start, setStart] = useState(choices[0]?.[0] ?? "");
  const [end, setEnd] = useState(choices[1]?.[0] ?? "");
  const { read } = useInstrument("length");
  const marks = useMarks();
  const { taken, trouble, send } = useTake(job);
  const take = (value: number, text: string) => {
    const ends = { start: pointOf(start), end: pointOf(end) };
    const body = { ...ends, value, text, when, note: "", ...read, resolution: Math.max(read.resolution, 1) };
    return send(() => api.POST("/api/jobs/{job_id}/lengths", { params: { path: { job_id: job.id } }, body }));
  };
  return (
    <Box display="grid" gap="2">
      <PlainChoice free label="From" value={start} choices={choices} choose={setStart} />
      <PlainChoice free label="To" value={end} choices={choices} choose={setEnd} />
      <PlainQuantity key={taken} label="Length" value={null} take={(mm, text) => void take(mm, text)} />
      <FromInstrument reads="length" held={heldBetween(marks.get(start), marks.get(end), when)} take={take} />
      <Trouble words={trouble} />
    </Box>
  );
}

/** A point over one level line. */
export function TakeLevel({ job, when }: { job: JobHead; when: When }) {
  const choices = usePoints(false);
  const [at, setAt] = useState(choices[0]?.[0] ?? "");
  const { read } = useInstrument("level");
  const marks = useMarks();
  const { taken, trouble, send } = useTake(job);
  const take = (value: number, text: string) => {
    const body = { point: pointOf(at), value, text, when, note: "", ...read };
    return send(() => api.POST("/api/jobs/{job_id}/levels", { params: { path: { job_id: job.id } }, body }));
  };
  return (
    <Box display="grid" gap="2">
      <PlainChoice free label="Level at" value={at} choices={choices} choose={setAt} />
      <PlainQuantity
        key={taken}
        label="Underside over the level line"
        value={null}
        take={(mm, text) => void take(mm, text)}
      />
      <FromInstrument reads="level" held={heldAt(marks.get(at), when)} take={take} />
      <Trouble words={trouble} />
    </Box>
  );
}

type From = { reads: "length" | "level"; held: Held | null; take: (mm: number, text: string) => unknown };

/** What the instrument in hand shows between two marks, or at one. */
function FromInstrument({ reads, held, take }: From) {
  const used = useInstrument(reads);
  if (!held) return null;
  return (
    <LiveReading
      instrument={used.id}
      name={reads === "level" ? "level" : used.read.instrument}
      zeroed={used.zeroed}
      held={held}
      kind="length"
      take={(mm, text) => void take(mm, text)}
    />
  );
}

function Trouble({ words }: { words: string }) {
  if (!words) return null;
  return (
    <Text role="alert" color="removed" fontSize="14px">
      {words}
    </Text>
  );
}
