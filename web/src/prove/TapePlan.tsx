import type { TapedFrame } from "../api/types";
import { paint } from "../app/theme";

const SIZE = { w: 270, h: 120, pad: 14 };
/** Ellipses of the points' standard errors are drawn this many times as large as the frame. */
const GROWN = 40;

/** The taped points in plan, front to the left, with their error ellipses; the wrong length stands out. */
export function TapePlan({ taped }: { taped: TapedFrame }) {
  const { points } = taped.network;
  const xs = points.map((p) => p.x_mm);
  const ys = points.map((p) => p.y_mm);
  const [left, low] = [Math.min(...xs), Math.min(...ys)];
  const k = Math.min(
    (SIZE.w - 2 * SIZE.pad) / Math.max(Math.max(...xs) - left, 1),
    (SIZE.h - 2 * SIZE.pad) / Math.max(Math.max(...ys) - low, 1),
  );
  const at = (id: string) => {
    const p = points.find((q) => q.id === id);
    return p ? { x: SIZE.pad + (p.x_mm - left) * k, y: SIZE.pad + (p.y_mm - low) * k } : null;
  };
  return (
    <svg
      viewBox={`0 0 ${SIZE.w} ${SIZE.h}`}
      width="100%"
      role="img"
      aria-label="Taped points in plan, front to the left"
    >
      {taped.lengths.map((row) => {
        const [a, b] = [at(row.start), at(row.end)];
        if (!a || !b) return null;
        const wrong = row.entry === taped.left_out;
        return (
          <line
            key={row.entry}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            stroke={paint(wrong ? "touch" : "rule")}
            strokeWidth={wrong ? 3 : 1}
            strokeDasharray={wrong ? "7 4" : undefined}
          />
        );
      })}
      {points.map((p) => {
        const place = at(p.id);
        if (!place) return null;
        return (
          <g key={p.id} transform={`translate(${place.x} ${place.y})`}>
            <title>{taped.names[p.id]}</title>
            <ellipse
              rx={Math.max(p.major_mm * k * GROWN, 1)}
              ry={Math.max(p.minor_mm * k * GROWN, 1)}
              transform={`rotate(${p.turn_deg})`}
              fill="none"
              stroke={paint("ink")}
            />
            <circle r="2" fill={paint("ink")} />
          </g>
        );
      })}
      <text x="2" y={SIZE.h - 3} fontSize="11" fill={paint("faint")}>
        front to the left; ellipses {GROWN} times
      </text>
    </svg>
  );
}
