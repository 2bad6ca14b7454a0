import { Box, Flex, Progress, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, postLines, Refused } from "../api/client";
import type { Choice, FindLine, Found, JobHead, Notch } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { showLength, showThickness } from "../units/show";

/** Finds the lightest plates from the shop's stock that bring every capacity back to stock. */
export function Finder({ job, notch, index }: { job: JobHead; notch: Notch; index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const [progress, setProgress] = useState<{ done: number; total: number } | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const [trouble, setTrouble] = useState("");
  const stop = useRef<AbortController | null>(null);
  const find = async () => {
    const { design, survey } = useBench.getState().history.now;
    stop.current = new AbortController();
    setProgress({ done: 0, total: 1 });
    setFound(null);
    setTrouble("");
    try {
      const body = { job_id: jobId, design, survey, notch_id: notch.id };
      await postLines<FindLine>("/api/find/reinforcement", body, stop.current.signal, (line) => {
        if (line.done != null && line.total != null) setProgress({ done: line.done, total: line.total });
        if (line.found) setFound(line.found);
        if (line.problem) setTrouble(line.problem);
      });
    } catch (error) {
      if (!stop.current.signal.aborted) setTrouble(messageOf(error));
    }
    setProgress(null);
  };
  const use = (choice: Pick<Choice, "notch" | "boxing">) => {
    const { operations } = useBench.getState().history.now.design;
    const added = choice.boxing ? [choice.boxing] : [];
    const value = [...operations.map((op, i) => (i === index ? choice.notch : op)), ...added];
    act({ kind: "set", path: ["design", "operations"], value });
    setFound(null);
  };
  const thick = (mm: number) => showThickness(mm, style);
  return (
    <Group title="Find plates">
      <StockFields job={job} />
      {progress ? (
        <Flex gap="2" align="center">
          <Progress.Root flex="1" value={progress.done} max={Math.max(progress.total, 1)} aria-label="Sets tried">
            <Progress.Track bg="sheet">
              <Progress.Range bg="chalk" />
            </Progress.Track>
          </Progress.Root>
          <Act onClick={() => stop.current?.abort()}>Cancel</Act>
        </Flex>
      ) : (
        <Act main onClick={() => void find()}>
          Find the lightest set
        </Act>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {found && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          {found.best && found.notch ? (
            <>
              <Text>Cut {showLength(found.notch.depth_mm, style)} deep for the same clear opening:</Text>
              <Text fontWeight="600">{wordsOf(found.best, thick)}</Text>
              <Text>
                {found.best.mass_kg.toFixed(2)} kg a side; least capacity {found.least_ratio.toFixed(2)} of stock in the{" "}
                {found.governs}. {found.tried} sets tried.
              </Text>
              <Act main onClick={() => found.notch && use({ notch: found.notch, boxing: found.boxing ?? null })}>
                Use this set
              </Act>
              {found.alternatives.length > 0 && <Text mt="2">Heavier, of other plates:</Text>}
              {found.alternatives.map((choice) => (
                <Box key={wordsOf(choice.set, thick)} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
                  <Text>
                    {wordsOf(choice.set, thick)}: <b>{choice.set.mass_kg.toFixed(2)} kg</b>, least{" "}
                    {choice.least_ratio.toFixed(2)} in the {choice.governs}
                  </Text>
                  <Act onClick={() => use(choice)}>Use this one</Act>
                </Box>
              ))}
            </>
          ) : (
            <Text>{found.reason}</Text>
          )}
        </Box>
      )}
    </Group>
  );
}

function wordsOf(best: NonNullable<Found["best"]>, length: (mm: number) => string): string {
  const rows: [string, number][] = [
    ["liner", best.liner_mm],
    ["outer plate", best.outer_mm],
    ["inner plate", best.inner_mm],
    ["boxing plate", best.boxing_mm],
    [`cap ${length(best.cap_height_mm)} high`, best.cap_mm],
  ];
  return rows
    .filter(([, mm]) => mm > 0)
    .map(([name, mm]) => `${name} ${length(mm)}`)
    .join(", ");
}

function messageOf(error: unknown): string {
  if (error instanceof Refused) return error.problems[0]?.message ?? error.message;
  return error instanceof Error ? error.message : "the search stopped";
}

/** The shop's plate thicknesses and cap heights, mm. */
function StockFields({ job }: { job: JobHead }) {
  const queries = useQueryClient();
  const [plates, setPlates] = useState(job.shop.plate_stock_mm.join(" "));
  const [caps, setCaps] = useState(job.shop.cap_heights_mm.join(" "));
  const [trouble, setTrouble] = useState("");
  const changed = plates !== job.shop.plate_stock_mm.join(" ") || caps !== job.shop.cap_heights_mm.join(" ");
  const numbers = (text: string) =>
    text
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number);
  const keep = async () => {
    try {
      const body = { ...job.shop, plate_stock_mm: numbers(plates), cap_heights_mm: numbers(caps) };
      await api.PUT("/api/jobs/{job_id}/shop", { params: { path: { job_id: job.id } }, body });
      await queries.invalidateQueries({ queryKey: ["job", job.id] });
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Box mb="2">
      <PlainWords label="Plate in the rack, mm" value={plates} take={setPlates} />
      <PlainWords label="Cap heights to try, mm" value={caps} take={setCaps} />
      {changed && <Act onClick={() => void keep()}>Keep this stock</Act>}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
