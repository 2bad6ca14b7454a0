import { useRef, useState } from "react";
import { postLines, Refused } from "../api/client";
import type { FindLine } from "../api/types";

/** Why a search stopped, in words. */
export function messageOf(error: unknown): string {
  if (error instanceof Refused) {
    const [first] = error.problems;
    if (!first) return error.message;
    return first.expected ? `${first.message}: give ${first.expected}` : first.message;
  }
  return error instanceof Error ? error.message : "the search stopped";
}

/** A search of the core: how far it is, what went wrong, and its last line; it can be stopped. */
export function useSearch(path: string) {
  const [progress, setProgress] = useState<{ done: number; total: number } | null>(null);
  const [answer, setAnswer] = useState<FindLine | null>(null);
  const [trouble, setTrouble] = useState("");
  const [told, setTold] = useState("");
  const [left, setLeft] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  const asked = useRef<unknown>(null);
  /** Ask; ``about`` is what the question was about, so that an answer is not laid on something else. */
  const find = async (body: Record<string, unknown>, about: unknown = null) => {
    asked.current = about;
    const own = new AbortController();
    stop.current = own;
    setProgress({ done: 0, total: 1 });
    setAnswer(null);
    setTrouble("");
    try {
      await postLines<FindLine>(path, body, own.signal, (line) => {
        setTold(line.told ?? "");
        if (line.told) return;
        if (line.done != null && line.total != null) setProgress({ done: line.done, total: line.total });
        setLeft(line.seconds_left ?? null);
        if (line.best || line.sets || line.remedies || line.holes || line.window || line.nest) setAnswer(line);
        if (line.problem) setTrouble(line.problem);
      });
    } catch (error) {
      if (!own.signal.aborted) setTrouble(messageOf(error));
    }
    setProgress(null);
    setTold("");
  };
  const cancel = () => stop.current?.abort();
  return { progress, answer, trouble, told, left, asked: asked.current, find, cancel, forget: () => setAnswer(null) };
}
