import { Refused } from "../api/client";

/** A refusal as one sentence with what would be accepted. */
export function reasonOf(error: unknown): string {
  if (error instanceof Refused) {
    const [first] = error.problems;
    if (!first) return error.message;
    const found = first.found && `; ${first.found}`;
    return `${first.message}${found}${first.expected && `. ${first.expected}.`}`;
  }
  return error instanceof Error ? error.message : "that did not work";
}
