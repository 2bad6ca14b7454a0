import { thisTab } from "./device";
import type { Draft } from "./document";

/** Unsaved work as this browser holds it, until the server has it. */
export type Kept = { tab: string; base: number; surveyBase: number; at: string; draft: Draft };

const HEAD = "nodulant-kept";
const keyOf = (person: string, optionId: number, tab: string) => `${HEAD}/${person}/${optionId}/${tab}`;

/** Keep unsaved work here; false where the browser's storage is full or shut. */
export function remember(person: string, optionId: number, work: Omit<Kept, "tab" | "at">): boolean {
  try {
    const kept: Kept = { ...work, tab: thisTab(), at: new Date().toISOString() };
    localStorage.setItem(keyOf(person, optionId, kept.tab), JSON.stringify(kept));
    return true;
  } catch {
    return false;
  }
}

/** The server has it: this browser's copy goes. */
export function forget(person: string, optionId: number, tab = thisTab()): void {
  try {
    localStorage.removeItem(keyOf(person, optionId, tab));
  } catch {
    // a shut storage holds nothing to forget
  }
}

/** Lay work that was overtaken under a name of its own, so that what this tab does next cannot replace it. */
export function setAside(person: string, optionId: number, kept: Kept): Kept {
  const aside = { ...kept, tab: `${kept.tab}.on${kept.base}-${Date.parse(kept.at)}` };
  try {
    localStorage.setItem(keyOf(person, optionId, aside.tab), JSON.stringify(aside));
  } catch {
    return kept;
  }
  forget(person, optionId, kept.tab);
  return aside;
}

/** What this browser holds of a person's work on an option, newest first; what cannot be read is left where it is. */
export function keptHere(person: string, optionId: number): Kept[] {
  const found: Kept[] = [];
  try {
    for (const key of Object.keys(localStorage)) {
      if (!key.startsWith(keyOf(person, optionId, ""))) continue;
      const kept = read(localStorage.getItem(key));
      if (kept) found.push(kept);
    }
  } catch {
    return [];
  }
  return found.sort((a, b) => b.at.localeCompare(a.at));
}

function read(text: string | null): Kept | null {
  try {
    const kept = JSON.parse(text ?? "") as Kept;
    return kept.draft?.design?.operations && kept.draft.survey?.rails && kept.base ? kept : null;
  } catch {
    return null;
  }
}
