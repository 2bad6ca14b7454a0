import { useMay } from "../app/session";
import { type Path, valueAt } from "../draft/document";
import { seenDraft, useBench } from "../draft/store";
import { Act, Pair } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

type Spot = { along_mm: number; up_mm: number };

/** Places one by one, each along and up from a middle. */
export function Spots({ label, path }: { label: string; path: Path }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const spots = useBench((s) => valueAt(seenDraft(s), path) as readonly Spot[] | undefined) ?? [];
  const set = (value: readonly Spot[]) => act({ kind: "set", path, value });
  return (
    <fieldset>
      <legend className="small-words">{label}</legend>
      {spots.map((_, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: places are known by their order only
        <Pair key={k}>
          <QuantityField label={`${k + 1}, along`} path={[...path, k, "along_mm"]} />
          <QuantityField label={`${k + 1}, up`} path={[...path, k, "up_mm"]} />
        </Pair>
      ))}
      {may.design && <Act onClick={() => set([...spots, { along_mm: 40 * spots.length, up_mm: 0 }])}>Add a bolt</Act>}
      {may.design && spots.length > 0 && <Act onClick={() => set(spots.slice(0, -1))}>Take the last one out</Act>}
    </fieldset>
  );
}
