/** Named load states, each with what the one before it carries and more. */
export const LOAD_STATES = [
  ["bare", "bare frame"],
  ["empty", "empty"],
  ["driver", "driver"],
  ["laden", "laden"],
] as const;
export type LoadState = (typeof LOAD_STATES)[number][0];

export function stateName(state: string): string {
  return LOAD_STATES.find(([key]) => key === state)?.[1] ?? state;
}
