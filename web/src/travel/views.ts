import type { Vec } from "./space";

export type ViewName = "side" | "plan" | "end";

/** One view of the sheet: how it lays space on paper, and back. */
export type PaperView = {
  name: ViewName;
  words: string;
  left: number;
  top: number;
  width: number;
  height: number;
  perMm: number;
  at: (p: Vec) => readonly [number, number];
  /** The two coordinates that a pointer in this view sets; the third stays. */
  back: (px: number, py: number, old: Vec) => Vec;
  /** Which coordinate runs to the right and which up the paper, and its sense. */
  across: 0 | 1 | 2;
  up: 0 | 1 | 2;
  sense: 1 | -1;
};

type Box = { left: number; top: number; width: number; height: number };
/** What is to be seen, mm: its middle, and how far it reaches along x, y and z. */
export type Extent = { middle: Vec; span: Vec };

const LAYING = {
  side: { words: "from the left, front to the left", across: 0, up: 2, sense: 1 },
  end: { words: "from behind", across: 1, up: 2, sense: 1 },
  plan: { words: "from above, front up", across: 1, up: 0, sense: -1 },
} as const;

/** Side view to the left; to the right the end view above the plan, on one scale across. One of them may fill the sheet. */
export function viewsOf(width: number, height: number, seen: Extent, alone: ViewName | null): PaperView[] {
  if (alone) return [lay(alone, { left: 0, top: 0, width, height }, seen)];
  const w = Math.round(width * 0.56);
  const h = Math.round(height * 0.45);
  const rest = width - w;
  const perMm = Math.min(
    fit("end", { left: w, top: 0, width: rest, height: h }, seen),
    fit("plan", { left: w, top: h, width: rest, height: height - h }, seen),
  );
  return [
    lay("side", { left: 0, top: 0, width: w, height }, seen),
    lay("end", { left: w, top: 0, width: rest, height: h }, seen, perMm),
    lay("plan", { left: w, top: h, width: rest, height: height - h }, seen, perMm),
  ];
}

function fit(name: ViewName, box: Box, { span }: Extent): number {
  const { across, up } = LAYING[name];
  return Math.min(box.width / span[across], box.height / span[up]);
}

function lay(name: ViewName, box: Box, seen: Extent, scale?: number): PaperView {
  const { words, across, up, sense } = LAYING[name];
  const perMm = scale ?? fit(name, box, seen);
  const [cx, cy] = [box.left + box.width / 2, box.top + box.height / 2];
  const { middle } = seen;
  return {
    name,
    words,
    ...box,
    perMm,
    across,
    up,
    sense,
    at: (p) => [cx + (p[across] - middle[across]) * perMm, cy - sense * (p[up] - middle[up]) * perMm],
    back: (px, py, old) => {
      const next: [number, number, number] = [...old];
      next[across] = middle[across] + (px - cx) / perMm;
      next[up] = middle[up] - (sense * (py - cy)) / perMm;
      return next;
    },
  };
}
