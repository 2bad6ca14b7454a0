import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { showLength, showNumber } from "../units/show";

/** What the core says of one operation: shown, not judged. */
export function FigureList({ id }: { id: string }) {
  const figures = useShown((s) => s.result?.figures ?? NONE);
  const dragging = useBench((s) => s.gesture !== null);
  const style = useBench((s) => s.style);
  const own = figures.filter((f, i) => f.id.endsWith(`-${id}`) && figures.findIndex((g) => g.id === f.id) === i);
  const value = (v: number, unit: string) =>
    unit === "share"
      ? `${(v * 100).toFixed(0)} %`
      : unit === "mm"
        ? showLength(v, style)
        : `${showNumber(v, 3)} ${unit}`;
  return (
    <>
      {own.map((f) => (
        <p key={f.id} className="small-words" title={f.basis} style={{ opacity: dragging ? 0.5 : 1 }}>
          {f.name}: <b>{value(f.value, f.unit)}</b> <span className="row-tail">{f.basis}</span>
        </p>
      ))}
    </>
  );
}
