import type { components } from "../api/schema";
import type { Style } from "../api/types";
import { parseTyped } from "../units/parse";
import { showLength, showThickness } from "../units/show";

export type MetalRack = components["schemas"]["MetalRack"];
export type SheetSold = components["schemas"]["Sheet"];
export type Offcut = components["schemas"]["Offcut"];
type Corner = Offcut["corners"][number];

/** A typed length in mm; throws with what was found and what would do. */
export function lengthOf(text: string, style: Style): number {
  const read = parseTyped(text.trim(), "length", style);
  if ("message" in read) throw new Error(`'${text.trim()}': ${read.message}, ${read.acceptable}`);
  return read.value;
}

/** '96 x 48 at 120; 60 x 24': sheets that are sold, each with its price where one is given. */
export function sheetsOf(text: string, style: Style, known: readonly SheetSold[]): SheetSold[] {
  return text
    .split(";")
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => known.find((sheet) => sheetText(sheet, style) === part) ?? sheetOf(part, style));
}

function sheetOf(part: string, style: Style): SheetSold {
  const [size = "", price] = part.split(/\bat\b/);
  const own = sizeOf(size, style);
  if (!own) throw new Error(`'${part}': a sheet is its length x its width, then 'at' and its price`);
  const cost = price === undefined ? null : Number(price.trim());
  if (cost !== null && !(cost >= 0)) throw new Error(`price '${price?.trim()}': give a number, such as 120 or 84.50`);
  return { ...own, thickness_mm: null, price: cost };
}

/** '96 x 48', the longer one first; nothing where it is not two lengths. */
function sizeOf(text: string, style: Style) {
  const [one, two, more] = text.split(/[x×]/);
  if (one === undefined || two === undefined || more !== undefined) return null;
  const [a, b] = [lengthOf(one, style), lengthOf(two, style)];
  return { long_mm: Math.max(a, b), wide_mm: Math.min(a, b) };
}

export function sheetText(sheet: SheetSold, style: Style): string {
  const size = `${showLength(sheet.long_mm, style)} x ${showLength(sheet.wide_mm, style)}`;
  return sheet.price == null ? size : `${size} at ${sheet.price}`;
}

export type RackTube = components["schemas"]["RackTube"];

/** '1 3/4 x 1/8 x 48; 38 x 6 x 900': outside, wall and length of what stands in the rack. */
export function tubesOf(text: string, style: Style, known: readonly RackTube[]): RackTube[] {
  return text
    .split(";")
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => known.find((tube) => tubeText(tube, style) === part) ?? tubeOf(part, style));
}

function tubeOf(part: string, style: Style): RackTube {
  const sizes = part.split(/[x×]/);
  if (sizes.length !== 3) throw new Error(`'${part}': a tube is its outside x its wall x its length`);
  const [od_mm = 0, wall_mm = 0, long_mm = 0] = sizes.map((size) => lengthOf(size, style));
  return { od_mm, wall_mm, long_mm, steel_id: "mild" };
}

export function tubeText(tube: RackTube, style: Style): string {
  return `${showThickness(tube.od_mm, style)} x ${showThickness(tube.wall_mm, style)} x ${showLength(tube.long_mm, style)}`;
}

/** A price as typed; nothing where it is left empty. */
export function priceOf(text: string): number | null {
  if (!text.trim()) return null;
  const price = Number(text.trim());
  if (!(price >= 0)) throw new Error(`price '${text.trim()}': give a number, such as 2.10`);
  return price;
}

/** '30 x 12', or corner after corner '0, 0; 30, 0; 24, 12; 0, 12' along and across, from its lower left. */
export function cornersOf(text: string, style: Style): Corner[] {
  if (!text.includes(";")) {
    const size = sizeOf(text, style);
    if (!size)
      throw new Error(`'${text.trim()}': an offcut is its length x its width, or its corners with ';' between`);
    const { long_mm, wide_mm } = size;
    const corner = (along_mm: number, across_mm: number): Corner => ({ along_mm, across_mm });
    return [corner(0, 0), corner(long_mm, 0), corner(long_mm, wide_mm), corner(0, wide_mm)];
  }
  return text
    .split(";")
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const [x, y, more] = part.split(",");
      if (x === undefined || y === undefined || more !== undefined)
        throw new Error(`'${part}': a corner is how far along, a comma, how far across`);
      return { along_mm: lengthOf(x, style), across_mm: lengthOf(y, style) };
    });
}

/** How large an offcut is, as it is listed. */
export function offcutText(offcut: Offcut, style: Style): string {
  const reach = (name: keyof Corner) => {
    const at = offcut.corners.map((corner) => corner[name]);
    return showLength(Math.max(...at) - Math.min(...at), style);
  };
  const drawn = offcut.corners.length === 4 ? "" : `, ${offcut.corners.length} corners`;
  return `${reach("along_mm")} x ${reach("across_mm")}${drawn}`;
}
