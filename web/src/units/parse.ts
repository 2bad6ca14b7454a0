import type { Style } from "../api/types";
import type { Raw } from "../draft/raw";
import { type Read, readQuantity } from "./read";
import { type Kind, unitOf } from "./show";

/** Read typed text in the unit of its field; what cannot be read comes back with its place. */
export function parseTyped(text: string, kind: Kind, style: Style): Read | Raw {
  return readQuantity(text, kind === "thickness" ? "length" : kind, unitOf(kind, style));
}
