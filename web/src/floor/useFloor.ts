import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { useParams, useSearchParams } from "react-router";
import { api, got } from "../api/client";
import { useSession } from "../app/session";
import { useBench } from "../draft/store";
import { after } from "./after";
import { drop, enqueue, newMark, startQueue, useQueue, type Waiting, withSent } from "./queue";
import type { FloorAct, FloorSheet } from "./types";

/** The job's floor: the server's sheet with what was done here laid over it, and the ways to write on it. */
export type Floor = {
  jobId: number;
  optionId: number;
  name: string;
  sheet: FloorSheet;
  write: (act: FloorAct, title: string) => Promise<void>;
  photo: (step: string, picture: Blob, text: string, title: string) => Promise<void>;
  refresh: () => void;
};

export function useFloor(): { floor: Floor | undefined; trouble: string } {
  const jobId = Number(useParams().jobId);
  const [search] = useSearchParams();
  const person = useSession().user ?? "";
  const queries = useQueryClient();
  const job = useQuery({
    queryKey: ["job", jobId],
    queryFn: () => got(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
    enabled: !search.get("option"),
  });
  const optionId = Number(search.get("option")) || job.data?.options[0]?.id || 0;
  const found = useQuery({
    queryKey: ["floor", optionId],
    enabled: optionId > 0,
    queryFn: () =>
      withSent(() => got(api.GET("/api/options/{option_id}/floor", { params: { path: { option_id: optionId } } }))),
  });
  const refresh = useMemo(
    () => () => void queries.invalidateQueries({ queryKey: ["floor", optionId] }),
    [queries, optionId],
  );
  useEffect(() => startQueue(person, refresh), [person, refresh]);
  const told = found.data;
  useEffect(() => {
    for (const mark of told?.sent ?? []) void drop(mark);
  }, [told]);
  const style = told?.answer.style;
  useEffect(() => {
    if (style) useBench.getState().put({ style });
  }, [style]);
  const rows = useQueue((s) => s.rows);
  const sheet = useMemo(
    () => told && after(told.answer, ownRows(rows, person, optionId)),
    [told, rows, person, optionId],
  );
  const floor = useMemo(() => {
    if (!sheet) return undefined;
    const head = () => ({
      mark: newMark(),
      person,
      jobId,
      optionId,
      doneAt: new Date().toISOString(),
      refused: "",
      sent: false,
    });
    return {
      jobId,
      optionId,
      name: sheet.job,
      sheet,
      refresh,
      write: (act: FloorAct, title: string) => enqueue({ ...head(), act, title }, refresh),
      photo: (step: string, photo: Blob, text: string, title: string) =>
        enqueue({ ...head(), photo, step, text, title }, refresh),
    };
  }, [sheet, person, jobId, optionId, refresh]);
  return { floor, trouble: (job.error ?? found.error)?.message ?? "" };
}

/** What this person left for this option; what others left in this browser is not sent in their name. */
export const ownRows = (rows: readonly Waiting[], person: string, optionId: number) =>
  rows.filter((r) => r.person === person && r.optionId === optionId);
