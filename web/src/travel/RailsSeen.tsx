import { memo } from "react";
import type { RailDrawing } from "../api/types";
import { paint } from "../app/theme";
import { linePath } from "../drawing/outlinePath";
import { between } from "../drawing/scale";
import type { PaperView } from "./views";

/** The rails: in side view and plan along their way, in end view cut at the hubs. */
export const RailsSeen = memo(function RailsSeen({
  view,
  rails,
  at,
}: {
  view: PaperView;
  rails: RailDrawing[];
  at: number;
}) {
  return (
    <g fill={paint("bench")} stroke={paint("rule")} strokeWidth="1.2">
      {rails
        .filter((rail) => view.name !== "side" || rail.side === "left")
        .map((rail) => (
          <path key={rail.side} d={outline(view, rail, at)}>
            <title>{rail.side} rail</title>
          </path>
        ))}
    </g>
  );
});

function outline(view: PaperView, rail: RailDrawing, at: number): string {
  const { x_mm: xs, underside_z_mm: low, top_z_mm: high, web_y_mm: web, tip_y_mm: tip } = rail;
  if (view.name === "end") {
    const value = (column: number[]) => between(at, xs, column);
    const corners = [
      [value(web), value(low)],
      [value(tip), value(low)],
      [value(tip), value(high)],
      [value(web), value(high)],
    ] as const;
    return linePath(
      corners.map(([y, z]) => view.at([at, y, z])),
      true,
    );
  }
  const [one, two] = view.name === "side" ? [low, high] : [web, tip];
  const point = (x: number, v: number) => view.at(view.name === "side" ? [x, 0, v] : [x, v, 0]);
  const there = xs.map((x, i) => point(x, one[i] ?? 0));
  const back = xs.map((x, i) => point(x, two[i] ?? 0)).reverse();
  return linePath([...there, ...back], true);
}
