import type { Side } from "../api/types";
import { paint } from "../app/theme";
import { useGhost } from "../revisions/ghost";
import { outlinePath } from "./outlinePath";

type Props = { side: Side; at: (x: number, z: number) => readonly [number, number]; perMm: number };

/** Cuts and plates of another revision, dot-dashed under those on the bench. */
export function Ghost({ side, at, perMm }: Props) {
  const { name, result } = useGhost();
  if (!result) return null;
  const cuts = result.rails.filter((r) => r.side === side).flatMap((r) => r.cuts);
  const plates = result.parts.filter((p) => p.side === side && (p.face === "outer" || p.face === "inner"));
  return (
    <g fill="none" stroke={paint("ink")} strokeWidth="1.4" strokeDasharray="9 3 2 3" data-ghost={name}>
      {cuts.map((cut) => (
        <path key={`cut${cut.vertices[0]?.x}`} d={outlinePath(cut, at, perMm)} />
      ))}
      {plates.map((part) => (
        <path key={part.id} d={outlinePath(part.outline, at, perMm)} />
      ))}
    </g>
  );
}
