import type { Check } from "../api/types";

/** Checks that say the same of both rails are one row. */
export type Row = { key: string; check: Check; sides: string };

export function grouped(checks: readonly Check[]): Row[] {
  const rows: Row[] = [];
  const seen = new Map<string, Row>();
  for (const check of checks) {
    const [rule, subject, last] = check.id.split(":");
    const side = (last ?? "").replace("@as-built", "");
    const key = `${rule}:${subject}:${check.state}`;
    const twin = seen.get(key);
    if (twin && same(twin.check, check) && twin.sides !== side) {
      twin.sides = "both";
      continue;
    }
    const row = { key: check.id, check, sides: side };
    rows.push(row);
    if (!twin) seen.set(key, row);
  }
  return rows;
}

function same(a: Check, b: Check): boolean {
  if (a.verdict !== b.verdict) return false;
  if (a.value === null || b.value === null) return a.value === b.value;
  return Math.abs(a.value - b.value) <= 1e-3 * Math.max(1, Math.abs(a.value));
}

/** The worst of some checks, in the order of the column. */
export function worst(checks: readonly Check[]): Check["verdict"] | null {
  for (const verdict of ["fails", "not computed", "close", "holds"] as const) {
    if (checks.some((c) => c.verdict === verdict)) return verdict;
  }
  return null;
}

/** A check's value as a person reads it. */
export function shown(value: number, unit: string, length: (mm: number) => string): string {
  if (unit === "mm") return length(value);
  const digits = Math.abs(value) >= 100 || unit === "entries" ? 0 : 2;
  return `${value.toFixed(digits)} ${unit}`;
}
