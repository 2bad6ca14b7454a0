import { paint } from "../app/theme";

/** Where the six readings are taken: the rail cut across, and the rail over the axle's tube. */
export function SixReadings({ by }: { by: string }) {
  const axle = by !== "z-step" && by !== "raise";
  return (
    <svg
      viewBox="0 0 420 168"
      width="100%"
      style={{ maxWidth: 520 }}
      role="img"
      aria-label="Where the readings are taken"
    >
      <g fill="none" stroke={paint("ink")} strokeWidth="2">
        <path d="M 120 26 H 72 V 124 H 120 V 116 H 80 V 34 H 120 Z" fill={paint("panel")} />
      </g>
      <Dimension from={[52, 26]} to={[52, 124]} text="A" />
      <Dimension from={[72, 142]} to={[120, 142]} text="B" />
      <Dimension from={[72, 14]} to={[80, 14]} text="C" out />
      <g fill="none" stroke={paint("ink")} strokeWidth="2">
        <path d="M 200 20 H 408 V 62 H 200 Z" fill={paint("panel")} />
        {axle && <circle cx="304" cy="124" r="24" fill={paint("panel")} />}
      </g>
      {axle && (
        <>
          <Dimension from={[304, 62]} to={[304, 100]} text="E" />
          <Dimension from={[360, 100]} to={[360, 148]} text="D" />
          <path d="M 304 100 H 366 M 304 148 H 366" stroke={paint("faint")} strokeWidth="0.8" />
        </>
      )}
      <text x="214" y="46" fontSize="12" fill={paint("faint")}>
        rail, from the side
      </text>
      <text x="132" y="80" fontSize="12" fill={paint("faint")}>
        cut across
      </text>
    </svg>
  );
}

/** A dimension line with its letter. */
function Dimension({ from, to, text, out = false }: { from: number[]; to: number[]; text: string; out?: boolean }) {
  const [x0 = 0, y0 = 0] = from;
  const [x1 = 0, y1 = 0] = to;
  const upright = x0 === x1;
  const [mx, my] = [(x0 + x1) / 2, (y0 + y1) / 2];
  return (
    <g stroke={paint("chalk")} strokeWidth="1.2">
      <path d={`M ${x0} ${y0} L ${x1} ${y1}`} />
      {upright ? (
        <path d={`M ${x0 - 4} ${y0} h 8 M ${x1 - 4} ${y1} h 8`} />
      ) : (
        <path d={`M ${x0} ${y0 - 4} v 8 M ${x1} ${y1 - 4} v 8`} />
      )}
      <text
        x={upright ? mx - 8 : out ? mx + 16 : mx}
        y={upright ? my + 5 : out ? my + 5 : my + 16}
        textAnchor={upright ? "end" : "middle"}
        fontSize="14"
        fontWeight="700"
        stroke="none"
        fill={paint("chalk")}
      >
        {text}
      </text>
    </g>
  );
}
