import { useEffect, useState } from "react";

/** What is timed here: a step's work, the fire watch, a bead that cools. Kept in the browser over a reload. */
export type Timer = {
  id: string;
  words: string;
  /** Seconds that it runs; none for one that counts up. */
  lasts: number | null;
  /** Seconds run so far, by this page's own clock. */
  ran: number;
  running: boolean;
  /** When `ran` was told last, by the device's clock: time while the page was shut is counted from it. */
  told: number;
};

const KEY = "nodulant-timers";
const TICK_MS = 1000;
const LONGEST_SHUT_S = 16 * 3600;

const kept = (): Timer[] => {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Timer[];
  } catch {
    return [];
  }
};

let timers: Timer[] | null = null;
let before = 0;
const heard = new Set<() => void>();

/** Timers as they stand; on a reload the time in between is counted, unless the device's clock went back or leapt. */
function all(): Timer[] {
  if (timers) return timers;
  const now = Date.now();
  timers = kept().map((t) => {
    const shut = (now - t.told) / 1000;
    return t.running && shut > 0 && shut < LONGEST_SHUT_S ? { ...t, ran: t.ran + shut } : t;
  });
  before = performance.now();
  setInterval(tick, TICK_MS);
  return timers;
}

/** While the page is open its own clock counts: one that is put forward or back moves nothing. */
function tick(): void {
  const now = performance.now();
  const passed = (now - before) / 1000;
  before = now;
  if (!timers?.some((t) => t.running)) return;
  keep(timers.map((t) => (t.running ? { ...t, ran: t.ran + passed } : t)));
}

function keep(next: Timer[]): void {
  timers = next.map((t) => ({ ...t, told: Date.now() }));
  try {
    localStorage.setItem(KEY, JSON.stringify(timers));
  } catch {
    // storage is shut: they run on until the page is left
  }
  for (const hear of heard) hear();
}

export function startTimer(id: string, words: string, lasts: number | null): void {
  const now = all().filter((t) => t.id !== id);
  keep([...now, { id, words, lasts, ran: 0, running: true, told: 0 }]);
}

export function holdTimer(id: string, running: boolean): void {
  keep(all().map((t) => (t.id === id ? { ...t, running } : t)));
}

export function dropTimer(id: string): void {
  keep(all().filter((t) => t.id !== id));
}

/** Every timer, told anew each second. */
export function useTimers(): readonly Timer[] {
  const [now, setNow] = useState<readonly Timer[]>(all);
  useEffect(() => {
    const hear = () => setNow(all());
    heard.add(hear);
    return () => void heard.delete(hear);
  }, []);
  return now;
}

/** Minutes and seconds, as a clock shows them. */
export function clockFace(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  return `${h ? `${h}:${String(m).padStart(2, "0")}` : m}:${String(s).padStart(2, "0")}`;
}
