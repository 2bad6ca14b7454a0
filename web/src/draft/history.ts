/** Undo and redo as a pure value. */
export type History<T> = { past: readonly T[]; now: T; future: readonly T[] };

const DEPTH = 200;

export function begin<T>(now: T): History<T> {
  return { past: [], now, future: [] };
}

export function commit<T>(history: History<T>, next: T): History<T> {
  if (next === history.now) return history;
  return { past: [...history.past, history.now].slice(-DEPTH), now: next, future: [] };
}

export function undo<T>(history: History<T>): History<T> {
  const last = history.past.at(-1);
  if (last === undefined) return history;
  return { past: history.past.slice(0, -1), now: last, future: [history.now, ...history.future] };
}

export function redo<T>(history: History<T>): History<T> {
  const [next, ...rest] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.now], now: next, future: rest };
}
