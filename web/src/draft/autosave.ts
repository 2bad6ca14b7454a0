import { api, got, Refused } from "../api/client";
import type { Draft } from "./document";
import { useBench } from "./store";

const DELAY_MS = 1000;
const localKey = (optionId: number) => `nodulant-draft-${optionId}`;

/** Keep unsaved work after a second of rest, in the browser at once and on the server. */
export function startAutosave(mayDesign: boolean): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const stop = useBench.subscribe((now, before) => {
    if (!mayDesign || now.history === before.history || now.save !== "unsaved") return;
    remember(now.optionId, now.base, now.history.now);
    clearTimeout(timer);
    timer = setTimeout(saveDraft, DELAY_MS);
  });
  return () => {
    clearTimeout(timer);
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
export async function saveRevision(note: string): Promise<void> {
  const { optionId, jobId, base, surveyBase, history, put, save } = useBench.getState();
  if (save === "saved" && history.past.length === 0) return;
  put({ save: "saving" });
  const { design, survey } = history.now;
  try {
    const job = { params: { path: { job_id: jobId } } };
    const surveyed = history.past.some((old) => old.survey !== survey)
      ? await got(api.POST("/api/jobs/{job_id}/survey", { ...job, body: { base: surveyBase, survey } }))
      : { number: surveyBase };
    put({ surveyBase: surveyed.number });
    const option = { params: { path: { option_id: optionId } } };
    const saved = await got(
      api.POST("/api/options/{option_id}/revisions", { ...option, body: { base, design, note } }),
    );
    put({ base: saved.number, save: "saved", saveNote: `revision ${saved.number}` });
    localStorage.removeItem(localKey(optionId));
  } catch (error) {
    const stale = error instanceof Refused && error.status === 409;
    put({ save: "failed", saveNote: error instanceof Error ? error.message : "not saved" });
    if (stale && error instanceof Refused) announceStale(error);
  }
}

function announceStale(error: Refused): void {
  const kept = error.body.kept as { name?: string } | null;
  const where = kept?.name
    ? ` Your work is now the option '${kept.name}'.`
    : " Your work stays here; reload to see theirs.";
  useBench.getState().put({ saveNote: `${error.message}.${where}` });
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
