import { useEffect } from "react";
import { saveRevision } from "../draft/autosave";
import { STAGES, useBench } from "../draft/store";
import { lookAt, useLooking } from "../drawing/view";
import { singleKeys, useHelp } from "../help/helpStore";

export const KEYS: readonly (readonly [string, string])[] = [
  ["[  and  ]", "axle down or up by 2 mm; with Shift by 10"],
  [",  and  .", "section forward or rearward"],
  ["+  and  -", "closer, farther"],
  ["1 to 9", "stages"],
  ["( and )", "roll of the suspension, left and right"],
  ["; and '", "steering to the left and to the right; with Shift to the locks"],
  ["l", "other rail"],
  ["Tab, then arrows", "nudge a handle on the sheet by a tape mark; Shift for eight; Enter to type"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Ctrl S", "save a revision"],
  ["Ctrl K", "find and do: stages, fields, checks, words, acts"],
  ["?", "help"],
];

const TRAVEL: Record<string, number> = { "[": -2, "]": 2, "{": -10, "}": 10 };
const ROLL: Record<string, number> = { "(": -0.5, ")": 0.5 };
const STEER: Record<string, number> = { ";": -0.05, "'": 0.05, ":": -2, '"': 2 };
const STATION: Record<string, number> = { ",": -10, ".": 10, "<": -50, ">": 50 };

/** The bench's keys; while a field is being typed in they are letters like any other. */
export function useKeys(): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey) return withCtrl(event);
      const target = event.target as HTMLElement;
      if (target.matches("input:not([type=range]):not([type=checkbox]), select, textarea")) return;
      if (singleKeys()) plain(event.key);
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, []);
}

function withCtrl(event: KeyboardEvent): void {
  const { undo, redo } = useBench.getState();
  const key = event.key.toLowerCase();
  if (key === "z") event.shiftKey ? redo() : undo();
  else if (key === "s") void saveRevision("");
  else if (key === "k") useHelp.getState().put({ finding: true });
  else return;
  event.preventDefault();
}

function plain(key: string): void {
  const { travelMm, rollDeg, steer, stationMm, side, put } = useBench.getState();
  const looking = useLooking.getState();
  const stage = STAGES[Number(key) - 1];
  if (ROLL[key]) put({ rollDeg: Math.min(Math.max(rollDeg + ROLL[key], -5), 5) });
  else if (STEER[key]) put({ steer: Math.round(Math.min(Math.max(steer + STEER[key], -1), 1) * 100) / 100 });
  else if (TRAVEL[key]) put({ travelMm: travelMm + TRAVEL[key] });
  else if (STATION[key]) {
    put({ stationMm: stationMm + STATION[key] });
    lookAt(stationMm + STATION[key]);
  } else if (key === "+" || key === "=") looking.zoom(1 / 1.2, stationMm);
  else if (key === "-") looking.zoom(1.2, stationMm);
  else if (key === "l") put({ side: side === "left" ? "right" : "left" });
  else if (key === "?") useHelp.getState().put({ sheet: "words", word: "" });
  else if (stage) put({ stage });
}
