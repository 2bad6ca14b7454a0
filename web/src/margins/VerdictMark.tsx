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
      {verdict === "holds" && (
        <path d="M3 12.5h10M8 3v6.5M4.5 9.5h7" stroke={paint("added")} strokeWidth="2.2" fill="none" />
      )}
    </svg>
  );
}

/** How far a value is from its limit: to the left of the line is bad. */
export function MarginBar({ margin }: { margin: number | null }) {
  const width = 74;
  const zero = width * 0.4;
  const most = 0.6;
  const length = margin === null ? 0 : (Math.min(Math.max(margin, -0.4), most) / 1) * width;
  const bad = length < 0;
  return (
    <svg width={width} height="12" aria-hidden="true" style={{ flexShrink: 0 }}>
      <path d={`M0 11.5H${width}`} stroke={paint("rule")} />
      {margin !== null && (
        <rect
          x={bad ? zero + length : zero}
          y="2"
          width={Math.max(Math.abs(length), 1.5)}
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
      <path d={`M${zero} 0V12`} stroke={paint("ink")} strokeWidth="1.5" />
    </svg>
  );
}
