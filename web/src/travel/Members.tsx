import { memo } from "react";
import type { AxleTravel, BodyPoint, Member } from "../api/types";
import { paint } from "../app/theme";
import { samePoint } from "./pose";
import type { Vec } from "./space";
import type { PaperView } from "./views";

type Props = {
  view: PaperView;
  axle: AxleTravel;
  place: (p: BodyPoint) => Vec;
  /** Of the left side, where single wheels roll as a pair. */
  left?: (p: BodyPoint) => Vec;
  ghost?: boolean;
  stock?: boolean;
  last?: boolean;
};

/** Links, arms, rods and springs of one view. */
export const Members = memo(function Members({ view, axle, place, left, ghost, stock, last }: Props) {
  return (
    <g strokeOpacity={ghost ? 0.55 : undefined}>
      {both(axle).map((member) => (
        <One
          key={member.name}
          view={view}
          member={member}
          place={member.mirrored ? (left ?? place) : place}
          ghost={ghost}
          stock={stock}
          last={last}
          mirrored={member.mirrored}
        />
      ))}
    </g>
  );
});

type Drawn = Member & { mirrored: boolean };

/** A wheel by itself is given on the right; its left one is drawn mirrored. */
function both(axle: AxleTravel): Drawn[] {
  const own = axle.members.map((m) => ({ ...m, mirrored: false }));
  if (!axle.independent) return own;
  return [
    ...own,
    ...own
      .filter((m) => !m.name.endsWith(", left"))
      .map((m) => ({ ...m, name: `${m.name}, mirrored`, mirrored: true })),
  ];
}

type OneProps = {
  view: PaperView;
  member: Member;
  place: Props["place"];
  ghost?: boolean;
  stock?: boolean;
  last?: boolean;
  mirrored: boolean;
};

/** A member that stays where it is is not drawn again. */
function sameMember(a: OneProps, b: OneProps): boolean {
  const [one, two] = [a.member, b.member];
  const alike = one.name === two.name && one.kind === two.kind && one.diameter_mm === two.diameter_mm;
  return alike && a.view === b.view && a.place === b.place && samePoint(one.a, two.a) && samePoint(one.b, two.b);
}

const One = memo(function One({ view, member, place, ghost, stock, last, mirrored }: OneProps) {
  const put = (p: BodyPoint) => {
    const [x, y, z] = place(p);
    return view.at([x, mirrored ? -y : y, z]);
  };
  const [ax, ay] = put(member.a);
  const [bx, by] = put(member.b);
  const ends = { x1: ax, y1: ay, x2: bx, y2: by };
  const spring = member.kind === "spring";
  const width = Math.max(member.diameter_mm * view.perMm, 2.5);
  if (ghost) {
    return (
      <line
        {...ends}
        stroke={paint(stock ? "was" : last ? "chalk" : "faint")}
        strokeDasharray={stock ? "9 4" : last ? "1 4" : "3 4"}
      >
        <title>{`${member.name}, ${stock ? "as it was" : last ? "before the last change" : "at ride height"}`}</title>
      </line>
    );
  }
  return (
    <g data-member={member.name}>
      <title>{member.name}</title>
      <line
        {...ends}
        stroke={paint(spring ? "faint" : "ink")}
        strokeWidth={width}
        strokeLinecap={spring ? "butt" : "round"}
      />
      <line
        {...ends}
        stroke={paint("panel")}
        strokeWidth={Math.max(width - 2.5, 0.5)}
        strokeLinecap={spring ? "butt" : "round"}
      />
      {spring && <Coils from={[ax, ay]} to={[bx, by]} width={width} />}
    </g>
  );
}, sameMember);

/** Turns of a coil, drawn as slanted strokes across the spring. */
function Coils({ from, to, width }: { from: readonly [number, number]; to: readonly [number, number]; width: number }) {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = Math.hypot(dx, dy);
  if (long < 12) return null;
  const [ux, uy] = [dx / long, dy / long];
  const turns = 7;
  const strokes = Array.from({ length: turns }, (_, i) => {
    const s = long * (0.2 + (0.6 * i) / turns);
    const [mx, my] = [from[0] + ux * s, from[1] + uy * s];
    const half = width / 2;
    const lean = long * 0.04;
    return `M${mx - uy * half - ux * lean} ${my + ux * half - uy * lean}L${mx + uy * half + ux * lean} ${my - ux * half + uy * lean}`;
  });
  return <path d={strokes.join("")} stroke={paint("added")} strokeWidth="1.6" fill="none" />;
}
