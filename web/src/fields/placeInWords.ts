import type { Catalogue, Design, Survey } from "../api/types";
import { valueAt } from "../draft/document";

/** What a whole list or group of fields is called. */
const WHOLE: Readonly<Record<string, string>> = {
  "/survey/crossmembers": "crossmembers between the rails",
  "/survey/masses": "masses on the frame",
  "/survey/seats": "seats of the springs",
  "/design/loads/links": "where links push on the rails",
  "/design/loads/jacks": "where a jack lifts",
  "/design/loads/stops": "where bump stops strike",
  "/design/suspensions": "what holds the axle",
  "/design/obstacles": "what stands around",
  "/design/operations": "work in the plan",
  "/design/targets/drop_mm": "how far it is lowered",
};

/** Where a problem lies, from its pointer into the draft: the thing's own name, then its field as the form calls it. */
export function placeInWords(pointer: string, draft: { design: Design; survey: Survey }, forms: Catalogue["forms"]) {
  const whole = WHOLE[pointer];
  if (whole) return whole;
  const path = pointer.split("/").filter(Boolean);
  const named = path.map((_, i) => nameAt(draft, path.slice(0, i + 1))).filter((name) => name !== undefined);
  const field = labelled(draft, path, forms) ?? plainly(path);
  return [named.at(-1), field].filter(Boolean).join(", ");
}

function nameAt(draft: object, path: readonly string[]): string | undefined {
  const thing = valueAt(draft, path);
  return thing && typeof thing === "object" && "name" in thing ? String(thing.name) : undefined;
}

/** The label of an operation's field: of the field itself, or of the place or part that holds it. */
function labelled(draft: { design: Design }, path: readonly string[], forms: Catalogue["forms"]): string | undefined {
  const [root, list, index, ...rest] = path;
  if (root !== "design" || list !== "operations") return;
  const form = forms.find((f) => f.kind === draft.design.operations?.[Number(index)]?.kind);
  const fields = form ? [...form.fields, ...form.parts.flatMap((part) => part.fields)] : [];
  const at = rest.join(".");
  return (fields.find((f) => f.at === at) ?? fields.find((f) => f.at && at.startsWith(`${f.at}.`)))?.label;
}

/** The last two names on the way to a field that no form knows; at a rail's station also which rail and which station. */
function plainly(path: readonly string[]): string {
  const [, list, side, stations, number] = path;
  const field = bare(path.at(-1) ?? "");
  if (list === "rails" && stations === "stations" && number)
    return `${side} rail, station ${Number(number) + 1}, ${field}`;
  if (list === "rails") return `${side} rail, ${field}`;
  const last = path.filter((name) => !/^\d+$|^layout$/.test(name)).slice(-2);
  return last.map(bare).join(", ");
}

/** A field's name without its unit. */
export const bare = (name: string) => name.replace(/_(mm|deg|kg|n|n_per_mm|id)$/, "").replaceAll(/[_-]/g, " ");
