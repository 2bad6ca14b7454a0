import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { Side, Style } from "../api/types";
import type { LoadState } from "../units/loadStates";
import { type Action, type Draft, reduce } from "./document";
import { begin, commit, type History, redo, undo } from "./history";
import type { Kept } from "./kept";

export const STAGES = ["survey", "target", "cut", "travel", "steer", "sweep", "patterns", "build", "prove"] as const;
export type StageName = (typeof STAGES)[number];
export type SaveState = "saved" | "saving" | "unsaved" | "failed";

export const SURVEY_TABS = ["Rail stations", "Features", "Crossmembers", "Masses and seats"] as const;

/** Unsaved work found on opening: in this browser (and an older state of it on the server), or on the server alone. */
export type Stray =
  | { from: "browser"; kept: Kept; alsoAt: number | null }
  | { from: "device"; id: number; base: number; at: string | null };

type Bench = {
  jobId: number;
  optionId: number;
  /** Whose work this is. */
  person: string;
  base: number;
  surveyBase: number;
  /** Another tab, gone by now, whose work lies here: its copy on the server goes with the next save. */
  replaces: string | null;
  /** Work of this person that lies elsewhere and is not in what is on the bench. */
  strays: readonly Stray[];
  history: History<Draft>;
  /** The draft as the newest revision has it; what differs from it is unsaved work. */
  revised: Draft | null;
  /** A drag's passing patch, one undo entry when it ends; ``seen`` is the one whose figures are shown. */
  gesture: { draft: Draft; at: number; seen: Draft } | null;
  stage: StageName;
  side: Side;
  travelMm: number;
  /** Roll of the suspension that is shown, degrees, right end of the axle up. */
  rollDeg: number;
  /** How far the steering wheel is turned: -1 full left, +1 full right. */
  steer: number;
  /** A link's end that is dragged swings about its other end. */
  holdLength: boolean;
  /** The sheet of travel and steering is drawn in space. */
  inSpace: boolean;
  /** Which suspension of the design lies on the bench. */
  suspension: number;
  /** Whether the Travel form shows what is planned or what was there before. */
  before: boolean;
  stationMm: number;
  selected: string | null;
  loadCase: string;
  /** What is aboard while the frame is judged. */
  loadState: LoadState;
  /** The bent shape is drawn over the elevation. */
  deflected: boolean;
  /** The margins slide over the sheet where there is no room beside it. */
  drawer: boolean;
  surveyTab: (typeof SURVEY_TABS)[number];
  style: Style;
  save: SaveState;
  /** The server could not be reached, or broke down: it is worth trying again. */
  unreached: boolean;
  saveNote: string;
  /** A word to the person that outlives opening another option. */
  notice: string;
  /** The option that a refused save was kept as: the bench moves there. */
  movedTo: number | null;
};

type Acts = {
  open: (
    start: Pick<
      Bench,
      "jobId" | "optionId" | "person" | "stage" | "base" | "surveyBase" | "style" | "revised" | "replaces" | "strays"
    > & {
      save: SaveState;
      draft: Draft;
      stationMm: number;
    },
  ) => void;
  act: (action: Action) => void;
  drag: (action: Action, at: number) => void;
  see: (draft: Draft) => void;
  drop: () => void;
  abandon: () => void;
  undo: () => void;
  redo: () => void;
  put: (part: Partial<Omit<Bench, "history" | "gesture">>) => void;
};

const empty = begin<Draft>({ design: {} as Draft["design"], survey: {} as Draft["survey"] });

/** The bench's state: draft with undo, gesture, and where the eye is. */
export const useBench = create<Bench & Acts>((set) => ({
  jobId: 0,
  optionId: 0,
  person: "",
  replaces: null,
  strays: [],
  base: 0,
  surveyBase: 0,
  history: empty,
  revised: null,
  gesture: null,
  stage: "cut",
  side: "left",
  travelMm: 0,
  rollDeg: 0,
  steer: 0,
  holdLength: false,
  inSpace: false,
  suspension: 0,
  before: false,
  stationMm: 0,
  selected: null,
  loadCase: "bump",
  loadState: "laden",
  deflected: false,
  drawer: false,
  surveyTab: "Rail stations",
  style: "in16",
  save: "saved",
  unreached: false,
  saveNote: "",
  notice: "",
  movedTo: null,
  open: ({ draft, ...rest }) =>
    set({
      ...rest,
      history: begin(draft),
      gesture: null,
      saveNote: "",
      selected: null,
      travelMm: 0,
      rollDeg: 0,
      steer: 0,
      suspension: 0,
    }),
  act: (action) =>
    set((s) => ({
      history: commit(s.history, reduce(s.history.now, action)),
      gesture: null,
      save: "unsaved",
    })),
  drag: (action, at) =>
    set((s) => ({ gesture: { draft: reduce(s.history.now, action), at, seen: s.gesture?.seen ?? s.history.now } })),
  see: (draft) => set((s) => (s.gesture ? { gesture: { ...s.gesture, seen: draft } } : {})),
  drop: () =>
    set((s) =>
      s.gesture ? { history: commit(s.history, s.gesture.draft), gesture: null, save: "unsaved" } : { gesture: null },
    ),
  abandon: () => set({ gesture: null }),
  undo: () => set((s) => ({ history: undo(s.history), gesture: null, save: "unsaved" })),
  redo: () => set((s) => ({ history: redo(s.history), gesture: null, save: "unsaved" })),
  put: (part) => set(part),
}));

/** Some parts of the bench: a component draws again only when one of them changes. */
export function usePick<K extends keyof (Bench & Acts)>(...keys: K[]): Pick<Bench & Acts, K> {
  return useBench(useShallow((s) => Object.fromEntries(keys.map((k) => [k, s[k]])) as Pick<Bench & Acts, K>));
}

/** Whether there is work that no revision holds. */
export function isRevised(s: Bench): boolean {
  const [now, then] = [s.history.now, s.revised];
  return then !== null && same(now.design, then.design) && same(now.survey, then.survey);
}

/** Whether two documents say the same. */
export function same(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

/** The draft as shown: the gesture's while dragging, else the committed one. */
export function shownDraft(s: Bench): Draft {
  return s.gesture?.draft ?? s.history.now;
}

/** The draft whose figures are shown, for fields: while a hand drags they change with the figures, not before them. */
export function seenDraft(s: Bench): Draft {
  return s.gesture?.seen ?? s.history.now;
}

/** The number of the suspension that lies on the bench: at the steering it is the front one. */
export function suspensionSeen(s: Bench): number {
  const all = shownDraft(s).design.suspensions ?? [];
  const front = s.stage === "steer" ? all.findIndex((own) => own.axle === "front") : -1;
  return front < 0 ? Math.min(s.suspension, Math.max(all.length - 1, 0)) : front;
}
