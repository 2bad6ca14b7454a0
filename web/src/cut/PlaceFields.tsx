import type { Path } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { ChoiceField, Pair } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

/** A place on the rail: so far behind (or, negative, ahead of) a named feature. */
export function PlaceFields({ label, path }: { label: string; path: Path }) {
  const features = useBench((s) => shownDraft(s).survey.features);
  return (
    <Pair>
      <QuantityField label={`${label}, behind`} path={[...path, "offset_mm"]} />
      <ChoiceField label="from" path={[...path, "anchor_id"]} choices={features.map((f) => [f.id, f.name] as const)} />
    </Pair>
  );
}
