import { create } from "zustand";

export const SHEETS = ["words", "how", "keys"] as const;
export type HelpSheet = (typeof SHEETS)[number];

type Help = {
  sheet: HelpSheet | null;
  /** The word that is looked up. */
  word: string;
  finding: boolean;
  /** The list of options and revisions is open. */
  revisions: boolean;
  /** Stop of the guided look that is shown. */
  look: number | null;
  /** Whether the word of the field at hand is told below the stage. */
  beside: boolean;
  put: (part: Partial<Omit<Help, "put">>) => void;
};

const BESIDE = "nodulant.words-beside";
const SINGLE = "nodulant.single-keys";

export const useHelp = create<Help>((set) => ({
  sheet: null,
  word: "",
  finding: false,
  revisions: false,
  look: null,
  beside: localStorage.getItem(BESIDE) !== "off",
  put: (part) => {
    if (part.beside !== undefined) localStorage.setItem(BESIDE, part.beside ? "on" : "off");
    set(part);
  },
}));

/** Letters without Ctrl act on the bench, unless somebody turned that off: speech input types letters. */
export const singleKeys = () => localStorage.getItem(SINGLE) !== "off";
export const setSingleKeys = (on: boolean) => localStorage.setItem(SINGLE, on ? "on" : "off");
