import { paint } from "../app/theme";
import { outlinePath } from "../drawing/outlinePath";
import type { FloorPicture, FloorStep } from "./types";

const WIDE = 640;
const MARGIN = 12;
const [LOWEST, HIGHEST] = [140, 340];
const WELDING = new Set(["weld", "plate"]);

/** The operation's rail from the side, with its pieces; where it is welded, its seams by number. */
export function Drawing({ picture, step }: { picture: FloorPicture; step: FloorStep }) {
  const { view } = picture;
  const parts = view.parts.filter((p) => p.in_place);
  const points = [...view.rail, ...parts.map((p) => p.outline)].flatMap((o) => o.vertices);
  if (points.length === 0) return null;
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const wide = (WIDE - 2 * MARGIN) / Math.max(x1 - x0, 1);
  const high = Math.min(HIGHEST, Math.max(LOWEST, (y1 - y0) * wide + 2 * MARGIN));
  const perMm = Math.min(wide, (high - 2 * MARGIN) / Math.max(y1 - y0, 1));
  const at = (x: number, y: number) =>
    [WIDE / 2 + (x - (x0 + x1) / 2) * perMm, high / 2 - (y - (y0 + y1) / 2) * perMm] as const;
  const welds = WELDING.has(step.phase) && step.burns ? view.welds : [];
  const fitted = !["survey", "prepare", "mark", "cut", "brace"].includes(step.phase);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDE} ${high}`}
        width="100%"
        role="img"
        aria-label={`${step.work || step.title} from the side, front to the left`}
        style={{ background: paint("sheet"), border: `1px solid ${paint("rule")}` }}
      >
        {view.rail.map((o) => (
          <path
            key={`${o.vertices[0]?.x},${o.vertices[0]?.y}`}
            d={outlinePath(o, at, perMm)}
            fill={paint("rule")}
            fillOpacity={0.45}
            stroke={paint("ink")}
            strokeWidth={2}
          />
        ))}
        {fitted &&
          parts.map((p) => (
            <path
              key={p.number}
              d={outlinePath(p.outline, at, perMm)}
              fill={paint("added")}
              fillOpacity={0.14}
              stroke={paint("added")}
              strokeWidth={2}
            />
          ))}
        {welds.map((w) => (
          <path
            key={w.number}
            d={outlinePath(w.path, at, perMm)}
            fill="none"
            stroke={paint("removed")}
            strokeWidth={4}
            strokeLinecap="round"
          />
        ))}
      </svg>
      <figcaption className="floor-caption">Front to the left{!fitted && "; as it will be once it is cut"}</figcaption>
    </figure>
  );
}
