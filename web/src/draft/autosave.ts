import { api, got, Refused } from "../api/client";
import { queries } from "../api/queries";
import type { Draft } from "./document";
import { isRevised, same, useBench } from "./store";

const DELAY_MS = 1000;
const IDLE_MS = 10 * 60 * 1000;
const localKey = (optionId: number) => `nodulant-draft-${optionId}`;

/** Keep unsaved work after a second of rest, in the browser at once and on the server. */
export function startAutosave(mayDesign: boolean): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let idle: ReturnType<typeof setTimeout> | undefined;
  const stop = useBench.subscribe((now, before) => {
    if (!mayDesign) return;
    if (now.stage !== before.stage && now.optionId === before.optionId) void saveRevision(`left ${before.stage}`);
    if (now.history === before.history || now.save !== "unsaved") return;
    clearTimeout(idle);
    idle = setTimeout(() => void saveRevision("after ten quiet minutes"), IDLE_MS);
    remember(now.optionId, now.base, now.history.now);
    clearTimeout(timer);
    timer = setTimeout(() => useBench.getState().save === "unsaved" && void saveDraft(), DELAY_MS);
  });
  /** The network is back: what could not be sent is sent. */
  const back = () => {
    if (mayDesign && useBench.getState().save === "failed") void saveDraft();
  };
  addEventListener("online", back);
  return () => {
    clearTimeout(timer);
    clearTimeout(idle);
    removeEventListener("online", back);
    stop();
  };
}

export async function saveDraft(): Promise<void> {
  const { optionId, base, history, put } = useBench.getState();
  put({ save: "saving" });
  try {
    const body = { base, design: history.now.design, survey: history.now.survey };
    await api.PUT("/api/options/{option_id}/draft", { params: { path: { option_id: optionId } }, body });
    const unchanged = useBench.getState().history.now === history.now;
    put({ save: unchanged ? "saved" : "unsaved", saveNote: "" });
    if (unchanged) localStorage.removeItem(localKey(optionId));
  } catch (error) {
    put({ save: "failed", saveNote: error instanceof Error ? error.message : "not saved" });
  }
}

/** Cut a revision of design and survey where they changed; a stale save keeps the work as an option. */
export async function saveRevision(note: string): Promise<boolean> {
  const { optionId, jobId, base, surveyBase, history, revised, put } = useBench.getState();
  if (isRevised(useBench.getState())) return true;
  put({ save: "saving", notice: "" });
  const now = history.now;
  try {
    if (!same(revised?.survey, now.survey)) {
      const body = { base: surveyBase, survey: now.survey };
      const surveyed = await got(api.POST("/api/jobs/{job_id}/survey", { params: { path: { job_id: jobId } }, body }));
      put({ surveyBase: surveyed.number, revised: revised && { ...revised, survey: now.survey } });
      await queries.invalidateQueries({ queryKey: ["job", jobId] });
    }
    const body = { base, design: now.design, note };
    const params = { path: { option_id: optionId } };
    const saved = await got(api.POST("/api/options/{option_id}/revisions", { params, body }));
    const unchanged = useBench.getState().history.now === now;
    put({
      base: saved.number,
      revised: now,
      save: unchanged ? "saved" : "unsaved",
      saveNote: `revision ${saved.number}`,
    });
    localStorage.removeItem(localKey(optionId));
    return true;
  } catch (error) {
    put({ save: "failed", saveNote: error instanceof Error ? error.message : "not saved" });
    if (error instanceof Refused && error.status === 409) await afterStale(error, optionId, jobId);
    return false;
  }
}

/** Someone saved before: the bench moves to the option that keeps the work; a survey waits to be saved again. */
async function afterStale(error: Refused, optionId: number, jobId: number): Promise<void> {
  const kept = error.body.kept as { id: number; name: string } | null;
  if (!kept) {
    const notice = "Someone saved the survey before you. Yours is still here; save again to put it on top of theirs.";
    useBench.getState().put({ surveyBase: Number(error.body.head), notice });
    return;
  }
  localStorage.removeItem(localKey(optionId));
  await queries.invalidateQueries({ queryKey: ["job", jobId] });
  await queries.invalidateQueries({ queryKey: ["option"] });
  useBench
    .getState()
    .put({ movedTo: kept.id, notice: `Someone saved before you. Your work is here, as '${kept.name}'.` });
}

function remember(optionId: number, base: number, draft: Draft): void {
  localStorage.setItem(localKey(optionId), JSON.stringify({ base, draft }));
}

/** Work that the browser kept and the server did not get, if it belongs to this revision. */
export function recalled(optionId: number, base: number): Draft | null {
  const text = localStorage.getItem(localKey(optionId));
  if (!text) return null;
  const kept = JSON.parse(text) as { base: number; draft: Draft };
  return kept.base === base ? kept.draft : null;
}
