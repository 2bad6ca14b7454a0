import type { Design, Notch, Operation, Survey } from "../api/types";

/** What is edited: the option's design and the job's survey, under one undo. */
export type Draft = { design: Design; survey: Survey };

/** Path into a draft, such as ["design", "operations", 1, "depth_mm"]. */
export type Path = readonly (string | number)[];
export type Action =
  | { kind: "set"; path: Path; value: unknown; typed?: { text: string; unit: string } }
  | { kind: "remove"; path: Path }
  | { kind: "insert"; path: Path; value: unknown }
  | { kind: "operation"; index: number; value: Operation }
  | { kind: "design"; value: Design }
  | { kind: "survey"; value: Survey };

type Node = Record<string, unknown> | unknown[];

export function replaced(node: unknown, path: Path, make: (old: unknown) => unknown): unknown {
  const [head, ...rest] = path;
  if (head === undefined) return make(node);
  if (Array.isArray(node)) return node.map((v, i) => (i === head ? replaced(v, rest, make) : v));
  const record = (node ?? {}) as Record<string, unknown>;
  return { ...record, [head]: replaced(record[head], rest, make) };
}

export function valueAt(node: unknown, path: Path): unknown {
  return path.reduce<unknown>((v, key) => (v as Node as Record<string | number, unknown>)?.[key], node);
}

/** The key under which typed text of a design's field is kept: '<operation id>.<field>' or its path. */
export function typedKey(draft: Draft, path: Path): string {
  if (path[1] === "operations" && typeof path[2] === "number") {
    return `${draft.design.operations?.[path[2]]?.id ?? path[2]}.${path.slice(3).join(".")}`;
  }
  return path.slice(1).join(".");
}

/** The draft with typed text kept at a path, or with what was typed at and below it dropped. */
function withTyped(draft: Draft, path: Path, typed?: { text: string; unit: string }): Draft {
  const root = path[0] === "survey" ? "survey" : "design";
  const kept = { ...draft[root].typed };
  const key = typedKey(draft, path);
  if (typed) kept[key] = typed;
  else for (const k of Object.keys(kept)) if (k === key || k.startsWith(`${key}.`)) delete kept[k];
  return { ...draft, [root]: { ...draft[root], typed: kept } };
}

/** The draft where what is typed at a path, or below it, is no longer assumed; ``removed`` rows move the later ones up. */
function measured(draft: Draft, path: Path, removed?: number): Draft {
  const root = path[0] === "survey" ? "survey" : "design";
  const assumed = draft[root].assumed ?? {};
  const at = `/${path.slice(1).join("/")}`;
  const next: Record<string, string> = {};
  for (const [key, name] of Object.entries(assumed)) {
    const below = key.startsWith(`${at}/`) ? key.slice(at.length + 1) : null;
    if (removed === undefined) {
      if (key !== at && below === null) next[key] = name;
      continue;
    }
    const [row, ...rest] = (below ?? "").split("/");
    const index = below === null ? -1 : Number(row);
    if (index === removed) continue;
    next[index > removed ? [at, index - 1, ...rest].join("/") : key] = name;
  }
  if (Object.keys(next).length === Object.keys(assumed).length && removed === undefined) return draft;
  return { ...draft, [root]: { ...draft[root], assumed: next } };
}

/** Stations over an assumed rear axle, and assumed ones behind it, go with the wheelbase when that is measured. */
function withAssumedPlaces(before: Draft, now: Draft): Draft {
  const [was, is] = [before.survey.wheelbase_mm, now.survey.wheelbase_mm];
  const { assumed = {} } = before.survey;
  if (was == null || is == null || was === is || !("/wheelbase_mm" in assumed)) return now;
  const moved = (side: "left" | "right") => {
    const rail = now.survey.rails[side];
    const stations = rail.stations.map((s, k) =>
      s.x_mm === was || (s.x_mm > was && `/rails/${side}/stations/${k}/x_mm` in assumed)
        ? { ...s, x_mm: s.x_mm + is - was }
        : s,
    );
    return { ...rail, stations };
  };
  return { ...now, survey: { ...now.survey, rails: { left: moved("left"), right: moved("right") } } };
}

/** Each axle's line stands at its hubs: the rear one follows the wheelbase, as the core has it. */
function withAxleLines(draft: Draft): Draft {
  const { survey } = draft;
  const base = survey.wheelbase_mm;
  if (base == null) return draft;
  const half = (x: number) => (x < base / 2 ? 0 : base);
  const alone = (x: number) => survey.features.filter((f) => f.kind === "axle-line" && half(f.x_mm) === x).length === 1;
  const off = (f: Survey["features"][number]) =>
    f.kind === "axle-line" && f.x_mm !== half(f.x_mm) && alone(half(f.x_mm));
  if (!survey.features.some(off)) return draft;
  return {
    ...draft,
    survey: { ...survey, features: survey.features.map((f) => (off(f) ? { ...f, x_mm: half(f.x_mm) } : f)) },
  };
}

/** The draft after an action: a pure function. */
export function reduce(draft: Draft, action: Action): Draft {
  switch (action.kind) {
    case "set": {
      const next = withTyped(replaced(draft, action.path, () => action.value) as Draft, action.path, action.typed);
      return withAxleLines(measured(withAssumedPlaces(draft, next), action.path));
    }
    case "remove": {
      const last = action.path.at(-1);
      const parent = action.path.slice(0, -1);
      // rows move up: what was typed in them would stand at the wrong row
      const cleared = measured(withTyped(draft, parent), parent, typeof last === "number" ? last : undefined);
      return replaced(cleared, parent, (old) => (old as unknown[]).filter((_, i) => i !== last)) as Draft;
    }
    case "insert":
      return replaced(draft, action.path, (old) => [...((old as unknown[]) ?? []), action.value]) as Draft;
    case "design":
      return { ...draft, design: action.value };
    case "survey":
      return { ...draft, survey: action.value };
    case "operation": {
      const path = ["design", "operations", action.index];
      const cleared = withTyped(draft, path);
      const dropped = Object.fromEntries(
        Object.entries(cleared.design.typed ?? {}).filter(([key]) => !key.startsWith(`${action.value.id}.`)),
      );
      const next = replaced(cleared, path, () => action.value) as Draft;
      return { ...next, design: { ...next.design, typed: dropped } };
    }
  }
}

export function notches(design: Design): { notch: Notch; index: number }[] {
  return (design.operations ?? []).flatMap((op, index) => (op.kind === "notch" ? [{ notch: op, index }] : []));
}

/** An id that is not taken yet. */
export function freshId(stem: string, taken: readonly string[]): string {
  for (let n = 1; ; n += 1) if (!taken.includes(`${stem}-${n}`)) return `${stem}-${n}`;
}
