import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { type Path, valueAt } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { ChoiceField, Pair, PlainChoice } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

const WAYS = [
  ["behind", "behind"],
  ["ahead of", "ahead of"],
] as const;

/** A place on the rail: so far behind or ahead of a named feature, as a tape reads it. */
export function PlaceFields({ label, path }: { label: string; path: Path }) {
  const features = useBench((s) => shownDraft(s).survey.features);
  const at = [...path, "offset_mm"];
  const offset = useBench((s) => valueAt(shownDraft(s), at)) as number;
  const act = useBench((s) => s.act);
  // at the feature itself neither way is wrong: the one that was chosen last stays
  const [chosen, choose] = useState("behind");
  const way = offset > 0 ? "behind" : offset < 0 ? "ahead of" : chosen;
  const turn = (next: string) => {
    choose(next);
    if (offset && next !== way) act({ kind: "set", path: at, value: -offset });
  };
  return (
    <Box>
      <Pair>
        <QuantityField label={`${label}, ${way}`} path={at} ahead={way === "ahead of"} />
        <PlainChoice label={`${label}, which way`} value={way} choices={WAYS} choose={turn} />
      </Pair>
      <ChoiceField label="from" path={[...path, "anchor_id"]} choices={features.map((f) => [f.id, f.name] as const)} />
    </Box>
  );
}
