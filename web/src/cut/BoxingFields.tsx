import { useSteelChoices } from "../api/catalogue";
import type { Boxing } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { Act, ChoiceField, Pair, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PlaceFields } from "./PlaceFields";
import { SideField } from "./SideField";

const SEAMS = [
  ["full", "full length"],
  ["stitch", "stitched"],
] as const;
const FITS = [
  ["over-lips", "over the lips"],
  ["flush", "flush with the lips"],
  ["inside", "inside the lips"],
] as const;

/** A plate that closes the channel between two places. */
export function BoxingFields({ boxing, index }: { boxing: Boxing; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const steels = useSteelChoices(true);
  const at = ["design", "operations", index] as const;
  return (
    <>
      <WordsField label="Name" path={[...at, "name"]} />
      <PlaceFields label="Front end" path={[...at, "start"]} />
      <PlaceFields label="Rear end" path={[...at, "end"]} />
      <Pair>
        <QuantityField label="Thickness" path={[...at, "thickness_mm"]} kind="thickness" />
        <ChoiceField label="Fit" path={[...at, "fit"]} choices={FITS} />
      </Pair>
      <Pair>
        <QuantityField label="Weld leg" path={[...at, "weld_leg_mm"]} kind="thickness" />
        {boxing.fit === "inside" ? (
          <QuantityField label="Step inside by" path={[...at, "inset_mm"]} />
        ) : (
          <ChoiceField label="Steel" path={[...at, "steel_id"]} choices={steels} />
        )}
      </Pair>
      <p className="small-words row-tail">
        Default: over the lips, since fit-up is easier on a wavy rail and it is one clean joint; inside keeps the rail's
        outer width.
      </p>
      <Pair>
        <ChoiceField label="Seam" path={[...at, "seam"]} choices={SEAMS} />
        {boxing.fit === "inside" && <ChoiceField label="Steel" path={[...at, "steel_id"]} choices={steels} />}
      </Pair>
      {boxing.seam === "stitch" && (
        <Pair>
          <QuantityField label="Stitch" path={[...at, "bead_mm"]} />
          <QuantityField label="Pitch" path={[...at, "pitch_mm"]} />
        </Pair>
      )}
      <p className="small-words row-tail">
        Default: full length in short beads spread along and around. Stitches are for hidden inset boxing and bring the
        plate in by their share.
      </p>
      <SideField op={boxing} index={index} />
      {may.design && <Act onClick={() => act({ kind: "remove", path: at })}>Take this plate out</Act>}
    </>
  );
}
