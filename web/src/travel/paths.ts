import type { Path } from "../draft/document";

/** The core's dotted path as a path of the draft; numbers are places in a list. */
export function pathOf(dotted: string): Path {
  return dotted.split(".").map((key) => (/^\d+$/.test(key) ? Number(key) : key));
}
