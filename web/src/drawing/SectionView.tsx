import type { SectionDrawing, Style } from "../api/types";
import { paint } from "../app/theme";
import { usePick } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { showFigure } from "../units/figure";
import { showLength } from "../units/show";
import { Dimensions } from "./Dimensions";

/** Metal of the rail, and air inside it. */
const FILLS: Record<string, string> = { rail: paint("ink"), void: paint("panel") };

const H = 150;
/** Room for the width's dimension line below, and for the height's beside the planned section. */
const BELOW = 34;
const STOCK_AT = 2;
const PLANNED_AT = 76;
/** Nearer to stock than this counts as stock's. */
const AS_STOCK = 0.98;
/** The section under the pointer, stock beside planned at one scale, and what it is worth. */
export function SectionView() {
  const section = useShown((s) => s.result?.section);
  const { side, style } = usePick("side", "style");
  return (
    <section className="section-view" aria-label="Section">
      <div className="section-head">
        <h2>Section A-A, {side}</h2>
        <span>{section ? `${showLength(section.x_mm, style)} behind the front axle` : ""}</span>
      </div>
      {section?.walls && <p className="section-walls">{section.walls.join(", ")}</p>}
      {section ? <Both section={section} style={style} /> : <p>Not computed: walls of this rail are missing.</p>}
    </section>
  );
}

const times = (ratio: number) => ratio.toFixed(ratio < 10 ? 2 : 0);

function Both({ section, style }: { section: SectionDrawing; style: Style }) {
  const levels = [...section.before, ...section.after].flatMap((s) => s.z_mm);
  const [low, high] = [Math.min(...levels), Math.max(...levels)];
  const across = [...section.before, ...section.after].flatMap((s) => s.y_mm);
  const [near, far] = [Math.min(...across), Math.max(...across)];
  const perMm = Math.min((H - BELOW - 18) / Math.max(high - low, 1), 42 / Math.max(far - near, 1), 0.62);
  const at = (left: number) => (y: number, z: number) =>
    [left + (y - near) * perMm, H - BELOW - (z - low) * perMm] as const;
  const draw = (shapes: SectionDrawing["before"], left: number) =>
    shapes.map((shape, i) => (
      <polygon
        // biome-ignore lint/suspicious/noArrayIndexKey: pieces of one section keep their order
        key={`${shape.name}${i}`}
        points={shape.y_mm.map((y, j) => at(left)(y, shape.z_mm[j] ?? 0).join(",")).join(" ")}
        fill={FILLS[shape.name] ?? "url(#fill-added)"}
        fillOpacity={shape.name === "rail" ? 0.75 : 1}
        stroke={shape.name in FILLS ? paint("ink") : paint("added")}
        strokeDasharray={shape.share < 1 ? "3 2" : undefined}
      />
    ));
  return (
    <div className="section-both">
      <svg width="122" height={H} role="img" aria-label="Section before and after" style={{ flexShrink: 0 }}>
        <text x="2" y="12" fill={paint("faint")} style={{ fontSize: 12 }}>
          stock
        </text>
        <text x={PLANNED_AT} y="12" fill={paint("faint")} style={{ fontSize: 12 }}>
          planned
        </text>
        {draw(section.before, STOCK_AT)}
        {draw(section.after, PLANNED_AT)}
        <Dimensions
          dimensions={section.dimensions ?? []}
          at={at(PLANNED_AT)}
          box={{ left: at(PLANNED_AT)(near, 0)[0], right: at(PLANNED_AT)(far, 0)[0], top: 18, bottom: H - BELOW }}
        />
      </svg>
      <table className="figures">
        <tbody>
          {section.figures.map((f) => (
            <tr key={f.name} title={`${showFigure(f.stock, f.unit, style)} to ${showFigure(f.planned, f.unit, style)}`}>
              <th scope="row">{f.name}</th>
              <td>{showFigure(f.planned, f.unit, style)}</td>
              <td className={f.planned < f.stock * AS_STOCK ? "less" : undefined}>×{times(f.planned / f.stock)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
