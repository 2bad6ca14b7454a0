import type { Check } from "../api/types";
import { paint } from "../app/theme";

/** A verdict as a shape; the word always stands beside it. */
export function VerdictMark({ verdict, size = 16 }: { verdict: Check["verdict"]; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" style={{ flexShrink: 0 }}>
      {verdict === "fails" && (
        <g>
          <path d="M2 2h12v12H2z" fill={paint("removed")} />
          <path d="M4 12L12 4" stroke={paint("sheet")} strokeWidth="2.4" />
        </g>
      )}
      {verdict === "not computed" && (
        <path d="M2.5 2.5h11v11h-11z" fill="none" stroke={paint("faint")} strokeWidth="1.8" strokeDasharray="2.6 2" />
      )}
      {verdict === "close" && (
        <g>
          <path d="M8 1.5L14.5 8L8 14.5L1.5 8z" fill="none" stroke={paint("touch")} strokeWidth="1.6" />
          <path d="M8 1.5L14.5 8L8 14.5z" fill={paint("touch")} />
        </g>
      )}
      {verdict === "weaker" && (
        <g>
          <path d="M2 13.5L8 2.5L14 13.5z" fill="none" stroke={paint("touch")} strokeWidth="1.6" />
          <path d="M5 8.6h6M3.6 11h8.8" stroke={paint("touch")} strokeWidth="1.6" />
        </g>
      )}
      {verdict === "stock itself" && (
        <path d="M2.5 5.5h11M2.5 10.5h11M5 3v10M11 3v10" stroke={paint("touch")} strokeWidth="1.5" fill="none" />
      )}
      {verdict === "note" && <path d="M3 4.5h10M3 8h10M3 11.5h6" stroke={paint("faint")} strokeWidth="1.6" />}
      {verdict === "holds" && (
        <path d="M3 12.5h10M8 3v6.5M4.5 9.5h7" stroke={paint("added")} strokeWidth="2.2" fill="none" />
      )}
    </svg>
  );
}

const WIDTH = 74;
const TENFOLD = WIDTH / 2;

/** How far a value is from its limit on a ratio scale, the same for every row: the mark in the middle is the limit, either end is ten times. */
export function MarginBar({ beyond }: { beyond: number | null }) {
  const away = beyond === null ? 0 : Math.max(-1, Math.min(1, Math.log10(beyond)));
  const bad = away > 1e-9;
  const length = Math.max(Math.abs(away) * TENFOLD, 1.5);
  return (
    <svg width={WIDTH} height="12" aria-hidden="true" style={{ flexShrink: 0 }}>
      <path d={`M0 11.5H${WIDTH}`} stroke={paint("rule")} />
      {[0.3, 0.7].map((at) => (
        <path key={at} d={`M${TENFOLD * (1 - at)} 9.5V11.5M${TENFOLD * (1 + at)} 9.5V11.5`} stroke={paint("rule")} />
      ))}
      {beyond !== null && (
        <rect
          x={bad ? TENFOLD - length : TENFOLD}
          y="2"
          width={length}
          height="8"
          fill={bad ? "url(#bar-bad)" : paint("added")}
          stroke={bad ? paint("removed") : "none"}
        />
      )}
      <defs>
        <pattern id="bar-bad" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V4" stroke={paint("removed")} strokeWidth="2" />
        </pattern>
      </defs>
      <path d={`M${TENFOLD} 0V12`} stroke={paint("ink")} strokeWidth="1.5" />
    </svg>
  );
}
