import type { Callout, Dimension } from "../api/types";
import { paint } from "../app/theme";

type At = (x: number, y: number) => readonly [number, number];
type Box = { left: number; top: number; right: number; bottom: number };
type Span = NonNullable<Dimension["span"]>;

const FIRST = 20;
const STEP = 19;
const PER_LETTER = 6.6;
const ARROW = 7;
const GAP = 3;

const flat = (span: Span) => span.edge === "below" || span.edge === "above";

/** Rows of dimension lines beside their edges, shortest next to the part; none over another's line or value. */
function stacked(dimensions: readonly Dimension[], at: At) {
  const taken = new Map<string, [number, number][]>();
  const rows = dimensions
    .flatMap((d) => (d.span ? [{ d, span: d.span, ends: alongOf(d.span, at) }] : []))
    .sort((one, two) => Math.abs(one.ends[1] - one.ends[0]) - Math.abs(two.ends[1] - two.ends[0]))
    .map(({ d, span, ends }) => {
      const half = Math.max(Math.abs(ends[1] - ends[0]), (d.text.length + 1) * PER_LETTER) / 2;
      const middle = (ends[0] + ends[1]) / 2;
      let row = 0;
      const full = (r: number) =>
        (taken.get(`${span.edge}${r}`) ?? []).some(([a, b]) => middle - half < b && a < middle + half);
      while (full(row)) row += 1;
      const key = `${span.edge}${row}`;
      taken.set(key, [...(taken.get(key) ?? []), [middle - half, middle + half]]);
      return { d, span, ends, row };
    });
  // an upright line shorter than its value has it lying beside it, where no other line stands further out
  return rows.map((own) => ({
    ...own,
    beside:
      !flat(own.span) &&
      Math.abs(own.ends[1] - own.ends[0]) < own.d.text.length * PER_LETTER &&
      !rows.some((other) => other.span.edge === own.span.edge && other.row > own.row),
  }));
}

function alongOf(span: Span, at: At): readonly [number, number] {
  return flat(span)
    ? [at(span.a, span.from_a)[0], at(span.b, span.from_b)[0]]
    : [at(span.from_a, span.a)[1], at(span.from_b, span.b)[1]];
}

/** How many rows of lines lie beside each edge, so that a drawing can leave room for them. */
export function roomFor(dimensions: readonly Dimension[], at: At): Record<Span["edge"], number> {
  const room = { below: 0, above: 0, left: 0, right: 0 };
  for (const { d, span, row, beside } of stacked(dimensions, at)) {
    const text = beside ? 5 + (d.text.length + 1) * PER_LETTER : 14;
    room[span.edge] = Math.max(room[span.edge], FIRST + row * STEP + text);
  }
  return room;
}

type Props = { dimensions: readonly Dimension[]; callouts?: readonly Callout[]; at: At; box: Box };

/** Dimension lines with witness lines and arrowheads round a drawing; critical ones bold with their tolerance. */
export function Dimensions({ dimensions, callouts = [], at, box }: Props) {
  return (
    <g data-dimensions="" stroke={paint("ink")} fill={paint("ink")} pointerEvents="none">
      {stacked(dimensions, at).map(({ d, span, ends, row, beside }) => {
        const off = FIRST + row * STEP;
        const line = { below: box.bottom + off, above: box.top - off, left: box.left - off, right: box.right + off }[
          span.edge
        ];
        return (
          <One
            key={`${d.name}${span.edge}${span.a}${span.b}`}
            d={d}
            ends={ends}
            starts={
              flat(span)
                ? [at(span.a, span.from_a)[1], at(span.b, span.from_b)[1]]
                : [at(span.from_a, span.a)[0], at(span.from_b, span.b)[0]]
            }
            line={line}
            across={flat(span)}
            beside={beside}
          />
        );
      })}
      {callouts.map((c) => (
        <Leader key={`${c.text}${c.x}`} callout={c} at={at} box={box} />
      ))}
    </g>
  );
}

type OneProps = {
  d: Dimension;
  ends: readonly [number, number];
  starts: readonly [number, number];
  line: number;
  across: boolean;
  beside: boolean;
};

function One({ d, ends, starts, line, across, beside }: OneProps) {
  const [near, far] = ends[0] < ends[1] ? ends : [ends[1], ends[0]];
  const inside = far - near > 3 * ARROW;
  const turn = inside ? 1 : -1;
  const p = (along: number, over: number) => (across ? `${along} ${over}` : `${over} ${along}`);
  const witness = (along: number, start: number) => {
    const out = line > start ? 1 : -1;
    return `M${p(along, start + out * GAP)}L${p(along, line + out * 4)}`;
  };
  const head = (tip: number, s: number) =>
    `M${p(tip, line)}L${p(tip + s * ARROW, line + 2)}L${p(tip + s * ARROW, line - 2)}Z`;
  const reach = inside ? 0 : 2 * ARROW;
  const middle = (near + far) / 2;
  const lying = across || beside;
  const outward = line > starts[0] ? 1 : -1;
  const [x, y] = across ? [middle, line - 4] : beside ? [line + 5 * outward, middle + 4] : [line - 4, middle];
  return (
    <g>
      <title>{d.name}</title>
      <path
        d={`${witness(ends[0], starts[0])}${witness(ends[1], starts[1])}M${p(near - reach, line)}L${p(far + reach, line)}`}
        strokeWidth="0.7"
        fill="none"
      />
      <path d={head(near, turn) + head(far, -turn)} stroke="none" />
      <text
        x={x}
        y={y}
        textAnchor={beside ? (outward > 0 ? "start" : "end") : "middle"}
        stroke="none"
        className="halo"
        transform={lying ? undefined : `rotate(-90 ${x} ${y})`}
        style={{ fontSize: 12, fontWeight: d.critical ? 700 : 400 }}
      >
        {d.text}
      </text>
    </g>
  );
}

/** A size beside a hole or an arc, to the side that has room. */
function Leader({ callout, at, box }: { callout: Callout; at: At; box: Box }) {
  const [x, y] = at(callout.x, callout.y);
  const wide = (callout.text.length + 1) * PER_LETTER;
  const wanted = callout.x >= callout.centre_x ? 1 : -1;
  const room = wanted > 0 ? box.right - x : x - box.left;
  const away = room < wide + 16 ? -wanted : wanted;
  return (
    <g>
      <path d={`M${x} ${y}l${14 * away} -12`} strokeWidth="0.7" fill="none" />
      <text
        x={x + 16 * away}
        y={y - 12}
        textAnchor={away > 0 ? "start" : "end"}
        stroke="none"
        className="halo"
        style={{ fontSize: 12 }}
      >
        {callout.text}
      </text>
    </g>
  );
}
