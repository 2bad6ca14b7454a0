import type { Path } from "../draft/document";
import { ChoiceField, Pair, TickField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

const SIDES = [
  ["under", "under the spring"],
  ["over", "on top of the spring"],
] as const;

/** A leaf pack and what is done to it. */
export function LeafFields({ at }: { at: Path }) {
  return (
    <>
      <Pair>
        <QuantityField label="Leaves in the pack" path={[...at, "leaves"]} kind="number" />
        <QuantityField label="Leaves taken out" path={[...at, "removed"]} kind="number" />
      </Pair>
      <Pair>
        <QuantityField label="Pack, thick" path={[...at, "pack_mm"]} />
        <QuantityField label="Block, thick" path={[...at, "block_mm"]} />
      </Pair>
      <ChoiceField label="The axle was" path={[...at, "axle_was"]} choices={SIDES} />
      <TickField label="Flip it to the other side" path={[...at, "flipped"]} />
      <Pair>
        <QuantityField label="Other pads add" path={[...at, "pads_mm"]} />
        <QuantityField label="One spring is rated for" path={[...at, "rated_n"]} kind="force" optional />
      </Pair>
    </>
  );
}
