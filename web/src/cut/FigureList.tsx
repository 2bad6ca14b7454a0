import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { showFigure } from "../units/figure";

/** What the core says of one operation: shown, not judged. */
export function FigureList({ id }: { id: string }) {
  const figures = useShown((s) => s.result?.figures ?? NONE);
  const dragging = useBench((s) => s.gesture !== null);
  const style = useBench((s) => s.style);
  const own = figures.filter((f, i) => f.id.endsWith(`-${id}`) && figures.findIndex((g) => g.id === f.id) === i);
  return (
    <>
      {own.map((f) => (
        <p key={f.id} className="small-words" title={f.basis} style={{ opacity: dragging ? 0.5 : 1 }}>
          {f.name}: <b>{showFigure(f.value, f.unit, style)}</b> <span className="row-tail">{f.basis}</span>
        </p>
      ))}
    </>
  );
}
