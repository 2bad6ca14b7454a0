import { useCatalogue } from "../api/catalogue";
import { type Path, valueAt } from "../draft/document";
import { seenDraft, useBench } from "../draft/store";
import { PlainChoice } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { showQuantity } from "../units/show";

const NEAR_MM = 0.05;

/** A diameter that a hole saw cuts: typed, or picked from the saws that can be bought. */
export function SawField({ label, path }: { label: string; path: Path }) {
  const { saws_mm } = useCatalogue();
  const act = useBench((s) => s.act);
  const style = useBench((s) => s.style);
  const now = useBench((s) => Number(valueAt(seenDraft(s), path) ?? 0));
  const own = saws_mm.findIndex((mm) => Math.abs(mm - now) < NEAR_MM);
  const choices = saws_mm.map((mm, k) => [String(k), showQuantity(mm, "thickness", style)] as const);
  return (
    <>
      <QuantityField label={label} path={path} kind="thickness" />
      <PlainChoice
        label="Hole saw"
        value={own < 0 ? "" : String(own)}
        choices={[["", "none of these"] as const, ...choices]}
        choose={(k) => k && act({ kind: "set", path, value: saws_mm[Number(k)] })}
      />
    </>
  );
}

/** A liner's wall, or a pipe that brings its outside diameter along as the hole's. */
export function PipeField({ label, path, hole }: { label: string; path: Path; hole: Path }) {
  const { pipes } = useCatalogue();
  const act = useBench((s) => s.act);
  const draft = useBench(seenDraft);
  const [wall, wide] = [path, hole].map((at) => Number(valueAt(draft, at) ?? 0));
  const own = pipes.findIndex(
    (p) => Math.abs(p.wall_mm - (wall ?? 0)) < NEAR_MM && Math.abs(p.outside_mm - (wide ?? 0)) < NEAR_MM,
  );
  const choose = (k: string) => {
    const pipe = k === "" ? undefined : pipes[Number(k)];
    if (!pipe) return;
    act({ kind: "set", path: hole, value: Math.round(pipe.outside_mm * 100) / 100 });
    act({ kind: "set", path, value: Math.round(pipe.wall_mm * 100) / 100 });
  };
  return (
    <>
      <QuantityField label={label} path={path} kind="thickness" optional />
      <PlainChoice
        label="Pipe"
        value={own < 0 ? "" : String(own)}
        choices={[["", "none of these"] as const, ...pipes.map((p, k) => [String(k), p.name] as const)]}
        choose={choose}
      />
    </>
  );
}
