import { useRef, useState } from "react";
import { postLines, Refused } from "../api/client";
import type { FindLine } from "../api/types";

/** Why a search stopped, in words. */
export function messageOf(error: unknown): string {
  if (error instanceof Refused) return error.problems[0]?.message ?? error.message;
  return error instanceof Error ? error.message : "the search stopped";
}

/** A search of the core: how far it is, what went wrong, and its last line; it can be stopped. */
export function useSearch(path: string) {
  const [progress, setProgress] = useState<{ done: number; total: number } | null>(null);
  const [answer, setAnswer] = useState<FindLine | null>(null);
  const [trouble, setTrouble] = useState("");
  const stop = useRef<AbortController | null>(null);
  const find = async (body: Record<string, unknown>) => {
    const own = new AbortController();
    stop.current = own;
    setProgress({ done: 0, total: 1 });
    setAnswer(null);
    setTrouble("");
    try {
      await postLines<FindLine>(path, body, own.signal, (line) => {
        if (line.done != null && line.total != null) setProgress({ done: line.done, total: line.total });
        if (line.found || line.piece || line.holes || line.window) setAnswer(line);
        if (line.problem) setTrouble(line.problem);
      });
    } catch (error) {
      if (!own.signal.aborted) setTrouble(messageOf(error));
    }
    setProgress(null);
  };
  return { progress, answer, trouble, find, cancel: () => stop.current?.abort(), forget: () => setAnswer(null) };
}
