import type { Catalogue, Check, Style } from "../api/types";
import { tell } from "../units/tell";

type Verdict = Check["verdict"];

/** Checks of one cause: the worst is told, the rest unfolds under it. */
export type Group = { key: string; head: Check; rows: Row[] };
/** A check, with the sides that it says the same of. */
export type Row = { check: Check; sides: string };

const RANK: Record<Verdict, number> = {
  fails: 0,
  "not computed": 1,
  weaker: 2,
  close: 3,
  "stock itself": 4,
  holds: 5,
  note: 6,
};
/** What is counted; neither notes nor what stock itself does not meet. */
export const COUNTED = ["fails", "not computed", "weaker", "close", "holds"] as const;

/** Words after a count. */
export const VERDICT_WORDS = {
  fails: "fail",
  "not computed": "not computed",
  weaker: "weaker",
  close: "close",
  holds: "hold",
} as const;

/** Worst verdict first, then how far beyond the limit, as the core orders them. */
export const bySeverity = (a: Check, b: Check) =>
  RANK[a.verdict] - RANK[b.verdict] || (b.beyond ?? 0) - (a.beyond ?? 0);

/** The checks' groups, in the order of the checks. */
export function grouped(checks: readonly Check[]): Group[] {
  const groups = new Map<string, Check[]>();
  for (const check of checks) {
    const own = groups.get(check.cause);
    if (own) own.push(check);
    else groups.set(check.cause, [check]);
  }
  return [...groups].map(([key, own]) => {
    const rows = bothSides(own.toSorted(bySeverity));
    return { key, head: (rows[0] as Row).check, rows };
  });
}

/** Left and right that agree are one row. */
function bothSides(checks: readonly Check[]): Row[] {
  const rows: Row[] = [];
  const seen = new Map<string, Row>();
  for (const check of checks) {
    const [name, side] = nameAndSide(check.id);
    const twin = seen.get(name);
    if (twin && twin.sides !== side && agree(twin.check, check)) {
      twin.sides = "both";
      continue;
    }
    const row = { check, sides: side };
    rows.push(row);
    if (!twin) seen.set(name, row);
  }
  return rows;
}

const taken = new Map<string, readonly [string, string]>();

/** '<rule>:<subject>' and side of a check's id; every move of a hand brings the same ids. */
function nameAndSide(id: string): readonly [string, string] {
  const known = taken.get(id);
  if (known) return known;
  const [rule, subject, last] = id.split(":");
  const own = [`${rule}:${subject}`, last?.split("@")[0] ?? ""] as const;
  taken.set(id, own);
  return own;
}

function agree(a: Check, b: Check): boolean {
  if (a.verdict !== b.verdict) return false;
  if (a.value === null || b.value === null) return a.value === b.value;
  return Math.abs(a.value - b.value) <= 0.02 * Math.max(1e-9, Math.abs(a.value), Math.abs(b.value));
}

/** How many groups there are of a verdict. */
export const count = (groups: readonly Group[], verdict: Verdict) =>
  groups.filter((g) => g.head.verdict === verdict).length;

/** The worst of some checks, in the order of the column; notes say nothing. */
export function worst(checks: readonly Check[]): Verdict | null {
  const first = checks.toSorted(bySeverity)[0];
  return first && first.verdict !== "note" ? first.verdict : null;
}

/** How values of limits read: the core's words, from its catalogue. */
export type Words = Pick<Catalogue, "reads" | "met">;

/** What a check says, as a person reads it: its own sentence, met or not, or its value as its limit reads. */
export function says(check: Check, style: Style, words: Words): string {
  if (check.said) return tell(check.said, style);
  if (check.value === null) return "";
  const met = words.met[check.limit_id];
  if (met) return check.verdict === "fails" ? met.unmet : met.met;
  return shown(check.value, check.unit, style, words);
}

/** Below a sixteenth of an inch a length is told in decimals: as a tape reads it, it would be nothing or twice as much. */
const FINE_MM = 1.6;

/** A value in the unit of its limit, as a person reads it. */
export function shown(value: number, unit: string, style: Style, words: Words): string {
  const own = words.reads[unit];
  if (!own) return "";
  const fine = own.kind === "length" && value !== 0 && Math.abs(value) < FINE_MM;
  return tell({ text: own.text, of: { value: { value, kind: fine ? "thickness" : own.kind } } }, style);
}
