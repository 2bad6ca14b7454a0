import type { Term } from "../api/types";
import { paint } from "../app/theme";

/** Scenes of 120 by 72: metal as filled shapes, the rest as lines. */
const SCENES: Record<Term["scene"], { metal?: string; line?: string; broken?: string }> = {
  side: { metal: "M4 22H116V46H4Z", broken: "M20 14V66M66 14V66" },
  notch: {
    metal: "M4 22H116V46H76A16 16 0 0 0 44 46H4Z",
    line: "M60 46m-9 6a9 9 0 1 0 18 0a9 9 0 1 0-18 0",
    broken: "M60 14V66",
  },
  section: { metal: "M40 14H74V20H46V52H74V58H40Z" },
  box: { metal: "M40 14H74V58H40ZM46 20V52H68V20Z", line: "M68 14V58" },
  axle: { metal: "M4 10H116V30H4Z", line: "M60 42m-12 12a12 12 0 1 0 24 0a12 12 0 1 0-24 0M56 54h8M60 50v8" },
  front: { metal: "M18 26H34V66H18ZM86 26H102V66H86Z", line: "M34 46H86M8 66H112", broken: "M26 10V70M94 10V70" },
  plan: { metal: "M6 10H114V22H6ZM6 50H114V62H6Z", line: "M54 22V50M66 22V50", broken: "M4 36H116" },
  tab: { metal: "M44 56V26A16 16 0 0 1 76 26V56ZM22 56H98V62H22Z", line: "M60 26m-6 0a6 6 0 1 0 12 0a6 6 0 1 0-12 0" },
  link: {
    line: "M20 36m-7 0a7 7 0 1 0 14 0a7 7 0 1 0-14 0M100 36m-7 0a7 7 0 1 0 14 0a7 7 0 1 0-14 0M27 33H93M27 39H93",
  },
  spring: {
    line: "M60 8m-5 0a5 5 0 1 0 10 0a5 5 0 1 0-10 0M60 64m-5 0a5 5 0 1 0 10 0a5 5 0 1 0-10 0M46 18H74L46 25H74L46 32H74L46 39H74L46 46H74M60 46V59",
  },
  leaf: {
    metal: "M10 30Q60 62 110 30L110 34Q60 67 10 34Z",
    line: "M10 28m-5 0a5 5 0 1 0 10 0a5 5 0 1 0-10 0M110 28m-5 0a5 5 0 1 0 10 0a5 5 0 1 0-10 0M60 36m-9 0a9 9 0 1 0 18 0a9 9 0 1 0-18 0",
  },
  bolt: {
    metal: "M36 20H48V56H36ZM72 20H84V56H72Z",
    line: "M48 30H72M48 42H72M28 24H36M28 48H36M28 24V48M84 24H92V48H84",
  },
  weld: { metal: "M10 40H110V54H10ZM60 10H72V40H60Z", line: "M60 28L48 40H60ZM72 28L84 40H72Z" },
  step: { metal: "M4 44H52V62H4ZM60 18H116V36H60ZM44 44L60 18H72L56 62H44Z" },
  ground: {
    metal: "M4 30H116V40H4Z",
    line: "M4 68H116M22 54m-12 0a12 12 0 1 0 24 0a12 12 0 1 0-24 0M98 54m-12 0a12 12 0 1 0 24 0a12 12 0 1 0-24 0",
    broken: "M60 20V68",
  },
  rack: { metal: "M34 32H86V42H34Z", line: "M34 37L10 30M86 37L110 30M10 24V36M110 24V36M66 32L74 14" },
  shaft: {
    line: "M8 44H34L86 30H112M34 44m-4 0a4 4 0 1 0 8 0a4 4 0 1 0-8 0M86 30m-4 0a4 4 0 1 0 8 0a4 4 0 1 0-8 0",
    broken: "M34 44H112",
  },
  plate: { metal: "M4 14H116V58H4Z", line: "M16 36L34 20H86L106 36L86 54H76A16 16 0 0 0 44 54H34Z" },
  stop: { metal: "M4 10H116V24H4Z", line: "M50 24H70L66 34H54ZM60 44m-10 10a10 10 0 1 0 20 0a10 10 0 1 0-20 0" },
  subframe: { metal: "M4 14H116V26H4ZM30 44H90V54H30Z", line: "M34 26V44M86 26V44M30 54L18 62M90 54L102 62" },
  hanger: {
    metal: "M4 22H116V46H4Z",
    line: "M16 46V58H32V46M24 55m-3 0a3 3 0 1 0 6 0a3 3 0 1 0-6 0",
    broken: "M66 14V66",
  },
  none: {},
};

/** The small drawing of a word: what it is about, and arrows from where to where. */
export function TermPicture({ term, width = 120 }: { term: Term; width?: number }) {
  const scene = SCENES[term.scene];
  if (term.scene === "none") return null;
  return (
    <svg
      width={width}
      height={width * 0.6}
      viewBox="0 0 120 72"
      role="img"
      aria-label={`${term.name}, drawing`}
      style={{ flexShrink: 0 }}
    >
      <path d={scene.metal ?? ""} fill={paint("rule")} fillRule="evenodd" stroke={paint("ink")} strokeWidth="1.2" />
      <path d={scene.line ?? ""} fill="none" stroke={paint("ink")} strokeWidth="1.4" />
      <path d={scene.broken ?? ""} fill="none" stroke={paint("faint")} strokeDasharray="5 3" />
      {term.arrows?.map(({ x0, y0, x1, y1 }) => (
        <path
          key={`${x0} ${y0} ${x1} ${y1}`}
          d={`M${x0} ${y0}L${x1} ${y1}${head(x0, y0, x1, y1)}${head(x1, y1, x0, y0)}`}
          fill={paint("chalk")}
          stroke={paint("chalk")}
          strokeWidth="1.6"
        />
      ))}
    </svg>
  );
}

/** An arrowhead at the second point. */
function head(x0: number, y0: number, x1: number, y1: number): string {
  const long = Math.hypot(x1 - x0, y1 - y0) || 1;
  const [u, v] = [(x1 - x0) / long, (y1 - y0) / long];
  const size = Math.min(6, long / 2);
  const [bx, by] = [x1 - u * size, y1 - v * size];
  const half = size * 0.4;
  return `M${x1} ${y1}L${bx - v * half} ${by + u * half}L${bx + v * half} ${by - u * half}Z`;
}
