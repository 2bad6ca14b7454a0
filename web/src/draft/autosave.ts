import { api, csrf, got, Refused } from "../api/client";
import { queries } from "../api/queries";
import { thisTab } from "./device";
import { forget, remember } from "./kept";
import { isRevised, same, useBench } from "./store";

const DELAY_MS = 1000;
const IDLE_MS = 10 * 60 * 1000;
/** What could not be sent is tried again after so long, the last for good. */
const AGAIN_MS = [3_000, 10_000, 30_000];

type Timer = ReturnType<typeof setTimeout> | undefined;

/** Keep unsaved work after a second of rest, in the browser at once and on the server; try again while it cannot be reached. */
export function startAutosave(mayDesign: boolean): () => void {
  if (!mayDesign) return () => undefined;
  let timer: Timer;
  let idle: Timer;
  let again: Timer;
  let tries = 0;
  const retry = () => {
    clearTimeout(again);
    again = setTimeout(() => void saveDraft(), AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)]);
    tries += 1;
  };
  const stop = useBench.subscribe((now, before) => {
    if (now.stage !== before.stage && now.optionId === before.optionId) void saveRevision(`left ${before.stage}`);
    if (now.save !== before.save && now.save === "failed" && now.unreached) retry();
    if (now.save === "saved") {
      clearTimeout(again);
      tries = 0;
    }
    if ((now.history === before.history && now.optionId === before.optionId) || now.save !== "unsaved") return;
    clearTimeout(idle);
    idle = setTimeout(() => void saveRevision("after ten quiet minutes"), IDLE_MS);
    keepHere();
    clearTimeout(timer);
    timer = setTimeout(() => useBench.getState().save === "unsaved" && void saveDraft(), DELAY_MS);
  });
  const back = () => useBench.getState().save === "failed" && void saveDraft();
  const leaving = (event: BeforeUnloadEvent) => useBench.getState().save !== "saved" && event.preventDefault();
  addEventListener("online", back);
  addEventListener("beforeunload", leaving);
  addEventListener("pagehide", lastWord);
  return () => {
    for (const t of [timer, idle, again]) clearTimeout(t);
    removeEventListener("online", back);
    removeEventListener("beforeunload", leaving);
    removeEventListener("pagehide", lastWord);
    stop();
  };
}

/** What is on the bench, as the server keeps it for this tab. */
function unsaved() {
  const { base, surveyBase, history, replaces } = useBench.getState();
  const { design, survey } = history.now;
  return { base, design, survey, survey_base: surveyBase, device: thisTab(), replaces };
}

/** Keep it in this browser; where it cannot, that is said. */
function keepHere(): void {
  const { person, optionId, base, surveyBase, history, put } = useBench.getState();
  const there = remember(person, optionId, { base, surveyBase, draft: history.now });
  if (!there) put({ notice: "This browser's storage is full or shut: unsaved work is on the server alone." });
}

/** The page goes away: what is not sent yet is sent without waiting for an answer. */
function lastWord(): void {
  const { save, optionId } = useBench.getState();
  if (save === "saved" || !optionId) return;
  const headers = { "Content-Type": "application/json", "X-CSRFToken": csrf() };
  const body = JSON.stringify(unsaved());
  void fetch(`/api/options/${optionId}/draft`, { method: "PUT", keepalive: true, headers, body }).catch(
    () => undefined,
  );
}

export async function saveDraft(): Promise<void> {
  const { optionId, person, history, put } = useBench.getState();
  if (!optionId) return;
  put({ save: "saving" });
  try {
    await api.PUT("/api/options/{option_id}/draft", { params: { path: { option_id: optionId } }, body: unsaved() });
    if (useBench.getState().optionId !== optionId) return;
    const unchanged = useBench.getState().history.now === history.now;
    put({ save: unchanged ? "saved" : "unsaved", saveNote: "", replaces: null });
    if (unchanged) forget(person, optionId);
  } catch (error) {
    failed(error, optionId);
  }
}

/** Not saved, with the reason; whether it is worth trying again by itself. */
function failed(error: unknown, optionId: number): void {
  const { put, optionId: open } = useBench.getState();
  if (open !== optionId) return;
  const unreached = error instanceof Refused && (error.status === 0 || error.status >= 500);
  put({ save: "failed", unreached, saveNote: error instanceof Error ? error.message : "not saved" });
}

/** Cut a revision of design and survey where they changed; a stale save keeps the work as an option. */
export async function saveRevision(note: string): Promise<boolean> {
  const { optionId, jobId, person, base, history, revised, replaces, put } = useBench.getState();
  if (isRevised(useBench.getState())) return true;
  put({ save: "saving", notice: "" });
  const now = history.now;
  let surveyed = false;
  try {
    if (!same(revised?.survey, now.survey)) await saveSurvey(jobId);
    surveyed = true;
    const body = { base, design: now.design, note, device: replaces ?? thisTab() };
    const params = { path: { option_id: optionId } };
    const saved = await got(api.POST("/api/options/{option_id}/revisions", { params, body }));
    const unchanged = useBench.getState().history.now === now;
    put({
      base: saved.number,
      revised: now,
      replaces: null,
      save: unchanged ? "saved" : "unsaved",
      saveNote: `revision ${saved.number}`,
    });
    forget(person, optionId);
    return true;
  } catch (error) {
    failed(error, optionId);
    if (error instanceof Refused && error.status === 409)
      await (surveyed ? afterStale(error, optionId, jobId) : bringTogether(jobId));
    return false;
  }
}

async function saveSurvey(jobId: number): Promise<void> {
  const { surveyBase, history, revised, put } = useBench.getState();
  const body = { base: surveyBase, survey: history.now.survey };
  const surveyed = await got(api.POST("/api/jobs/{job_id}/survey", { params: { path: { job_id: jobId } }, body }));
  put({ surveyBase: surveyed.number, revised: revised && { ...revised, survey: history.now.survey } });
  await queries.invalidateQueries({ queryKey: ["job", jobId] });
}

/** Someone saved before: the bench moves to the option that keeps the work, where the job has room for one. */
async function afterStale(error: Refused, optionId: number, jobId: number): Promise<void> {
  const kept = error.body.kept as { id: number; name: string } | null;
  if (!kept) {
    const notice =
      "Someone saved before you, and this job holds no more options. Your work is kept: it is offered here.";
    useBench.getState().put({ notice });
    return;
  }
  forget(useBench.getState().person, optionId);
  await queries.invalidateQueries({ queryKey: ["job", jobId] });
  await queries.invalidateQueries({ queryKey: ["option"] });
  useBench
    .getState()
    .put({ movedTo: kept.id, notice: `Someone saved before you. Your work is here, as '${kept.name}'.` });
}

/** What others measured meanwhile comes into the survey on the bench, to be looked at and saved. */
async function bringTogether(jobId: number): Promise<void> {
  const { surveyBase, history, act, put } = useBench.getState();
  const body = { base: surveyBase, survey: history.now.survey };
  const both = await got(api.POST("/api/jobs/{job_id}/survey/merge", { params: { path: { job_id: jobId } }, body }));
  act({ kind: "survey", value: both.survey });
  const told = both.both.length ? ` Changed by both, yours stands: ${both.both.join(", ")}.` : "";
  const notice = `Someone saved the survey meanwhile: their readings and yours are both here. Save again.${told}`;
  put({ surveyBase: both.head, notice });
}
