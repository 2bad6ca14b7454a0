import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams, useSearchParams } from "react-router";
import { api, got } from "../api/client";
import type { JobHead, OptionDesign } from "../api/types";
import { useMay, useSession } from "../app/session";
import { isHere, openTabs, thisTab } from "../draft/device";
import type { Draft } from "../draft/document";
import { forget, type Kept, keptHere, remember, setAside } from "../draft/kept";
import { type Stray, useBench } from "../draft/store";
import { useLooking } from "../drawing/view";
import { resetEvaluation } from "../evaluation/useEvaluation";
import { stageToOpen } from "./lastStage";

/** Load the job of the address and lay its option on the bench. */
export function useOpenJob(): { job: JobHead | undefined; trouble: string } {
  const jobId = Number(useParams().jobId);
  const [search] = useSearchParams();
  const may = useMay();
  const person = useSession().user ?? "";
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
    queryFn: () => opened(optionId ?? 0, person),
  });
  useEffect(() => {
    if (job.data && option.data) layOut(job.data, option.data, may.design ? person : "");
  }, [job.data, option.data, may.design, person]);
  useEffect(() => () => useBench.getState().put({ optionId: 0 }), []);
  return { job: job.data, trouble: (job.error ?? option.error)?.message ?? "" };
}

type Opened = { option: OptionDesign; others: OptionDesign["others"]; kept: Kept[] };

/** An option with what lies of it for this tab: the work of a tab that is gone is this one's now. */
async function opened(optionId: number, person: string): Promise<Opened> {
  const of = (device: string) =>
    got(api.GET("/api/options/{option_id}", { params: { path: { option_id: optionId }, query: { device } } }));
  const open = await openTabs();
  const option = await of(thisTab());
  const gone = (tab: string) => tab === thisTab() || (isHere(tab) && !open.has(tab));
  const kept = keptHere(person, optionId).filter((k) => gone(k.tab));
  const left = option.draft ? undefined : option.others.find((other) => gone(other.device));
  const others = option.others.filter((other) => other !== left && !open.has(other.device));
  return { option: left ? await of(left.device) : option, others, kept };
}

/** Unsaved work comes first: what this browser kept, then the server's draft, then the newest revision. */
function layOut(job: JobHead, { option, others, kept }: Opened, person: string): void {
  const bench = useBench.getState();
  if (bench.optionId === option.id && bench.jobId === job.id) return;
  const current = (k: Kept) => k.base === option.head && k.surveyBase === job.survey_number;
  // a tab that is gone hands its work on where this one has none of its own
  const mine = (k: Kept) => k.tab === thisTab() || !option.draft || option.draft_device === k.tab;
  const here = person ? kept.find((k) => current(k) && mine(k)) : undefined;
  const onHead = option.draft_base === option.head;
  const drafted = option.draft && onHead ? { design: option.draft, survey: option.draft_survey ?? job.survey } : null;
  const revised: Draft = { design: option.design, survey: job.survey };
  const draft = here?.draft ?? drafted ?? revised;
  const strays = person ? straysOf(option, others, kept, here).map((s) => aside(person, option.id, s)) : [];
  // the work of a tab that is gone is this one's from now on
  if (here && here.tab !== thisTab() && remember(person, option.id, here)) forget(person, option.id, here.tab);
  const replaces = onHead && option.draft_device !== thisTab() ? option.draft_device : null;
  const axle = draft.survey.wheelbase_mm ?? draft.survey.features.at(-1)?.x_mm ?? 0;
  resetEvaluation();
  useLooking.setState({ view: { x0: axle - 470, x1: axle + 470 }, hook: null });
  const onDraft = !here && drafted !== null;
  const style = job.shop.style;
  bench.open({
    jobId: job.id,
    optionId: option.id,
    person,
    base: (onDraft ? option.draft_base : null) ?? option.head,
    surveyBase: (onDraft ? option.draft_survey_base : null) ?? job.survey_number,
    replaces,
    strays,
    save: here || (replaces !== null && onDraft) ? "unsaved" : "saved",
    style,
    draft,
    revised,
    stationMm: axle,
    stage: stageToOpen(job.id, draft),
  });
}

/** What is not laid out: work on a revision that is not the newest any more, and work of other devices. */
function straysOf(option: OptionDesign, others: Opened["others"], kept: Kept[], here?: Kept): Stray[] {
  const older = option.draft_base === option.head ? null : option.draft_id;
  const own = kept.find((k) => k !== here && k.tab === option.draft_device);
  const found: Stray[] = kept
    .filter((k) => k !== here)
    .map((k) => ({ from: "browser", kept: k, alsoAt: k === own ? older : null }));
  if (older !== null && !own) found.push({ from: "device", id: older, base: option.draft_base ?? 1, at: null });
  return [...found, ...others.map(({ id, base, at }): Stray => ({ from: "device", id, base, at }))];
}

/** What this tab itself left is laid aside: its next work would take its place. */
function aside(person: string, optionId: number, stray: Stray): Stray {
  if (stray.from !== "browser" || stray.kept.tab !== thisTab()) return stray;
  return { ...stray, kept: setAside(person, optionId, stray.kept) };
}
