import type { Waiting } from "./queue";
import type { FloorSheet, FloorStep } from "./types";

const DONE = new Set(["done", "overridden"]);

/** Whether a step is behind us. */
export const isDone = (step: FloorStep): boolean => DONE.has(step.status);

/** The first step that nothing before it holds up, only what it asks for itself: a reading, a part, a load path. */
export function held(steps: readonly FloorStep[], but?: string): FloorStep | undefined {
  const open = new Set(steps.filter((s) => !isDone(s)).map((s) => s.id));
  return steps.find((s) => s.id !== but && s.status === "waiting" && !s.needs.some((id) => open.has(id)));
}

/** The sheet as it will be once what waits here is with the server: what was signed here is signed. */
export function after(sheet: FloorSheet, rows: readonly Waiting[]): FloorSheet {
  let { steps, readings, joints } = sheet;
  let stop = sheet.stop;
  let left_off = sheet.left_off;
  for (const row of rows) {
    if (!("act" in row) || row.refused) continue;
    const { act } = row;
    const entry = { number: 1, at: row.doneAt, by: row.person, imported: "", done_at: row.doneAt, clock: "" as const };
    if (act.kind === "sign" || act.kind === "pass") {
      const status = act.kind === "sign" ? ("done" as const) : ("overridden" as const);
      const who = { signed_by: row.person, signed_at: row.doneAt, reason: act.kind === "pass" ? act.reason : "" };
      steps = opened(steps.map((s) => (s.id === act.step && !isDone(s) ? { ...s, status, ...who } : s)));
    } else if (act.kind === "part") {
      const here = act.here ?? true;
      steps = steps.map((s) => ({ ...s, parts: s.parts.map((p) => (p.key === act.part ? { ...p, here } : p)) }));
    } else if (act.kind === "reading") {
      const same = (a: FloorStep["before"][number]) =>
        a.operation === act.operation && a.key === act.key && a.side === act.side;
      const taken = act.reading.text || "read";
      steps = steps.map((s) => ({ ...s, before: s.before.map((a) => (same(a) ? { ...a, taken } : a)) }));
      readings = readings.map((a) => (same(a) ? { ...a, taken, answer: null, words: "" } : a));
    } else if (act.kind === "weld" || act.kind === "bolts") {
      const made = { state: "made" as const, says: "written here, on its way" };
      joints = joints.map((j) => (j.joint === act.joint ? { ...j, ...made } : j));
    } else if (act.kind === "stop") stop = { ...entry, kind: "stop", step: act.step, reason: act.reason };
    else if (act.kind === "go-on") stop = null;
    else if (act.kind === "left-off") {
      left_off = { ...entry, kind: "left-off", step: act.step, text: act.text ?? "" };
    }
  }
  return { ...sheet, steps, readings, joints, stop, left_off };
}

/** What waits for nothing any more is open; what the design itself holds shut stays so until the server says otherwise. */
function opened(steps: FloorStep[]): FloorStep[] {
  const done = new Set(steps.filter(isDone).map((s) => s.id));
  return steps.map((s) =>
    s.status === "waiting" && !s.shut && s.needs.every((id) => done.has(id)) ? { ...s, status: "open" as const } : s,
  );
}
