import { del, entries, set } from "idb-keyval";
import { create } from "zustand";
import { api, csrf, Refused } from "../api/client";
import { reasonOf } from "../prove/reason";
import type { FloorAct } from "./types";

/** What was done here and is not with the server yet: sent in order, each once, with when it was done. */
export type Waiting = {
  mark: string;
  person: string;
  jobId: number;
  optionId: number;
  doneAt: string;
  /** What the row is called. */
  title: string;
  /** Why the server did not take it; empty while it waits. */
  refused: string;
  /** The server has it; it stays until what the server tells has it too, so that nothing flickers back. */
  sent: boolean;
} & ({ act: FloorAct } | { photo: Blob; step: string; text: string });

type Queue = {
  rows: readonly Waiting[];
  /** Who works here: what somebody else left in this browser is not sent in their name. */
  person: string;
  /** Whether the last try reached the server. */
  reached: boolean;
  /** The browser keeps nothing: its storage is full or shut. */
  unkept: boolean;
};

export const useQueue = create<Queue>(() => ({ rows: [], person: "", reached: true, unkept: false }));

const HEAD = "floor/";
let sending: Promise<void> | null = null;
let wanted = false;

/** Take what an earlier visit left, and send whenever the network is back. */
export function startQueue(person: string, taken: () => void): () => void {
  useQueue.setState({ person });
  const send = () => void flush(taken);
  void load().then(send);
  addEventListener("online", send);
  const again = setInterval(send, 20_000);
  return () => {
    removeEventListener("online", send);
    clearInterval(again);
  };
}

async function load(): Promise<void> {
  try {
    const kept = (await entries<string, Waiting>()).filter(([key]) => String(key).startsWith(HEAD));
    const here = useQueue.getState().rows;
    const more = kept.map(([, row]) => row).filter((row) => !here.some((r) => r.mark === row.mark));
    const rows = [...more, ...here].toSorted((a, b) => a.doneAt.localeCompare(b.doneAt));
    useQueue.setState({ rows });
  } catch {
    useQueue.setState({ unkept: true });
  }
}

/** Put something into the queue, kept here before it is sent. */
export async function enqueue(row: Waiting, taken: () => void): Promise<void> {
  useQueue.setState({ rows: [...useQueue.getState().rows, row] });
  try {
    await set(HEAD + row.mark, row);
  } catch {
    useQueue.setState({ unkept: true });
  }
  await flush(taken);
}

/** Take a row out: it was sent, or somebody decided against it. */
export async function drop(mark: string): Promise<void> {
  useQueue.setState({ rows: useQueue.getState().rows.filter((r) => r.mark !== mark) });
  await del(HEAD + mark).catch(() => undefined);
}

/** Try a refused row again. */
export async function retry(mark: string, taken: () => void): Promise<void> {
  await change(mark, { refused: "" });
  await flush(taken);
}

/** Send what waits, oldest first; one at a time, so that the order is the order in which it was done. */
export function flush(taken: () => void): Promise<void> {
  wanted = true;
  sending ??= (async () => {
    while (wanted) {
      wanted = false;
      await sendAll(taken);
    }
    sending = null;
  })();
  return sending;
}

async function sendAll(taken: () => void): Promise<void> {
  const { rows, person } = useQueue.getState();
  for (const row of rows) {
    if (row.refused || row.sent || row.person !== person) continue;
    try {
      await send(row);
      await change(row.mark, { sent: true });
      taken();
    } catch (error) {
      const status = error instanceof Refused ? error.status : 0;
      if (status === 0 || status >= 500 || status === 429) {
        useQueue.setState({ reached: status !== 0 });
        return;
      }
      await change(row.mark, { refused: reasonOf(error) });
    }
  }
}

async function change(which: string, what: Partial<Pick<Waiting, "refused" | "sent">>): Promise<void> {
  const rows = useQueue.getState().rows.map((r) => (r.mark === which ? { ...r, ...what } : r));
  useQueue.setState({ rows, reached: true });
  const row = rows.find((r) => r.mark === which);
  if (row) await set(HEAD + which, row).catch(() => undefined);
}

export type Told<T> = {
  answer: T;
  /** Marks of what was sent before it was asked, and is in the answer: done with here once the answer is on the screen. */
  sent: readonly string[];
};

/** Ask for something of the server. Dropping what it has any sooner would show a signed step as open for a moment. */
export async function withSent<T>(ask: () => Promise<T>): Promise<Told<T>> {
  const before = useQueue.getState().rows.filter((r) => r.sent);
  const answer = await ask();
  // without a network the answer is an older one that was kept
  return { answer, sent: navigator.onLine ? before.map((row) => row.mark) : [] };
}

async function send(row: Waiting): Promise<void> {
  if ("act" in row) {
    const params = { path: { option_id: row.optionId } };
    const body = { mark: row.mark, done_at: row.doneAt, act: row.act };
    await api.POST("/api/options/{option_id}/floor", { params, body });
    return;
  }
  const asked = new URLSearchParams({ step: row.step, text: row.text, mark: row.mark, done_at: row.doneAt });
  const path = `/api/options/${row.optionId}/photos?${asked}`;
  const sent = { method: "POST", body: row.photo, headers: { "X-CSRFToken": csrf() } };
  const answer = await fetch(path, sent).catch(() => null);
  if (!answer) throw new Refused(0, "the server cannot be reached");
  if (!answer.ok) {
    const body = (await answer.json().catch(() => ({}))) as { title?: string; problems?: Refused["problems"] };
    throw new Refused(answer.status, body.title ?? `the server answered ${answer.status}`, body.problems ?? []);
  }
}

/** A name that no other act has. */
export const newMark = (): string =>
  typeof crypto.randomUUID === "function"
    ? crypto.randomUUID()
    : Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, "0")).join("");
