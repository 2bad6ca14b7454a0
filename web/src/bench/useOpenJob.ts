import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams, useSearchParams } from "react-router";
import { api, got } from "../api/client";
import type { JobHead, OptionDesign } from "../api/types";
import { useMay } from "../app/session";
import { recalled } from "../draft/autosave";
import type { Draft } from "../draft/document";
import { useBench } from "../draft/store";
import { useLooking } from "../drawing/view";
import { resetEvaluation } from "../evaluation/useEvaluation";
import { stageToOpen } from "./lastStage";

/** Load the job of the address and lay its option on the bench. */
export function useOpenJob(): { job: JobHead | undefined; trouble: string } {
  const jobId = Number(useParams().jobId);
  const [search] = useSearchParams();
  const may = useMay();
  const job = useQuery({
    queryKey: ["job", jobId],
    gcTime: 0,
    queryFn: () => got(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
  });
  const wanted = Number(search.get("option")) || job.data?.options[0]?.id;
  const optionId = job.data?.options.some((o) => o.id === wanted) ? wanted : job.data?.options[0]?.id;
  const option = useQuery({
    queryKey: ["option", optionId],
    enabled: optionId !== undefined,
    gcTime: 0,
    queryFn: () => got(api.GET("/api/options/{option_id}", { params: { path: { option_id: optionId ?? 0 } } })),
  });
  useEffect(() => {
    if (job.data && option.data) layOut(job.data, option.data, may.design);
  }, [job.data, option.data, may.design]);
  useEffect(() => () => useBench.getState().put({ optionId: 0 }), []);
  return { job: job.data, trouble: (job.error ?? option.error)?.message ?? "" };
}

/** Unsaved work comes first: what this browser kept, then the server's draft, then the newest revision. */
function layOut(job: JobHead, option: OptionDesign, mayDesign: boolean): void {
  const bench = useBench.getState();
  if (bench.optionId === option.id && bench.jobId === job.id) return;
  const kept = mayDesign ? recalled(option.id, option.head) : null;
  const drafted = option.draft ? { design: option.draft, survey: option.draft_survey ?? job.survey } : null;
  const revised: Draft = { design: option.design, survey: job.survey };
  const draft = kept ?? drafted ?? revised;
  const axle = draft.survey.wheelbase_mm ?? draft.survey.features.at(-1)?.x_mm ?? 0;
  resetEvaluation();
  useLooking.setState({ view: { x0: axle - 470, x1: axle + 470 }, hook: null });
  const base = drafted ? (option.draft_base ?? option.head) : option.head;
  const style = job.shop.style;
  bench.open({
    jobId: job.id,
    optionId: option.id,
    base,
    surveyBase: job.survey_number,
    style,
    draft,
    revised,
    stationMm: axle,
  });
  bench.put({ stage: stageToOpen(job.id, draft) });
}
