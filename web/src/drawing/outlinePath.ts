import type { Outline } from "../api/types";

type Point = (x: number, y: number) => readonly [number, number];

/** SVG path data of an outline with true arcs; `at` maps mm to pixels with the height axis turned over. */
export function outlinePath(outline: Outline, at: Point, perMm: number): string {
  const first = outline.vertices[0];
  if (!first) return "";
  const count = outline.vertices.length;
  const segments = outline.closed ? count : count - 1;
  let data = `M${pair(at(first.x, first.y))}`;
  for (let i = 0; i < segments; i += 1) {
    const a = outline.vertices[i];
    const b = outline.vertices[(i + 1) % count];
    if (a && b) data += a.bulge ? arc(a, b, at, perMm) : `L${pair(at(b.x, b.y))}`;
  }
  return outline.closed ? `${data}Z` : data;
}

type Corner = Outline["vertices"][number];

function arc(a: Corner, b: Corner, at: Point, perMm: number): string {
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  const radius = ((chord * (1 + a.bulge ** 2)) / (4 * Math.abs(a.bulge))) * perMm;
  const large = Math.abs(a.bulge) > 1 ? 1 : 0;
  return `A${radius.toFixed(2)} ${radius.toFixed(2)} 0 ${large} ${a.bulge > 0 ? 0 : 1} ${pair(at(b.x, b.y))}`;
}

/** Hundredths of a pixel; rounding by hand, because toFixed is slow for a thousand points a frame. */
function pair([x, y]: readonly [number, number]): string {
  return `${Math.round(x * 100) / 100} ${Math.round(y * 100) / 100}`;
}

/** Straight line through points. */
export function linePath(points: readonly (readonly [number, number])[], closed = false): string {
  return points.map((p, i) => `${i ? "L" : "M"}${pair(p)}`).join("") + (closed ? "Z" : "");
}
