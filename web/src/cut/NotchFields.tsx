import { useSteelChoices } from "../api/catalogue";
import type { Notch } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { Act, ChoiceField, Group, Pair, PlainChoice, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { FigureList } from "./FigureList";
import { BOLTS } from "./fieldSpecs";
import { Part } from "./OperationFields";
import { PlaceFields } from "./PlaceFields";
import { SideField } from "./SideField";

type Role = "liner" | "outer_plate" | "inner_plate" | "cap";

const NEW: { [R in Role]: NonNullable<Notch[R]> } = {
  liner: { thickness_mm: 6, steel_id: "mild", weld_leg_mm: 5 },
  outer_plate: {
    thickness_mm: 5,
    overlap_mm: 190,
    inset_mm: 6,
    end: "diamond",
    steel_id: "mild",
    weld_leg_mm: 5,
  },
  inner_plate: {
    thickness_mm: 5,
    overlap_mm: 190,
    inset_mm: 6,
    end: "diamond",
    steel_id: "mild",
    weld_leg_mm: 5,
  },
  cap: { thickness_mm: 4, height_mm: 50, overlap_mm: 200, end: "taper", steel_id: "mild", weld_leg_mm: 5 },
};
const TOOLS = [
  ["template", "grinder, to a template"],
  ["hole-saw", "hole saw in a guide"],
] as const;
const EDGES = [
  ["below", "below"],
  ["above", "above"],
] as const;
const ENDS = [
  ["diamond", "diamond"],
  ["taper", "45° taper"],
  ["square", "square"],
] as const;

/** A notch's cut and its plates. */
export function NotchFields({ notch, index }: { notch: Notch; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const at = ["design", "operations", index] as const;
  const shape = (kind: string) => {
    const wide = notch.shape.kind === "arc" ? 2 * notch.shape.radius_mm : notch.shape.mouth_width_mm;
    const value =
      kind === "arc"
        ? { kind, radius_mm: wide / 2 }
        : { kind, top_width_mm: wide * 0.8, mouth_width_mm: wide * 1.15, corner_radius_mm: 12 };
    act({ kind: "set", path: [...at, "shape"], value });
  };
  return (
    <>
      <WordsField label="Name" path={[...at, "name"]} />
      <PlaceFields label="Centre" path={[...at, "place"]} />
      <Pair>
        <ChoiceField label="Cut from" path={[...at, "from_"]} choices={EDGES} />
        <ChoiceField label="Cut with" path={[...at, "tool"]} choices={TOOLS} />
      </Pair>
      <p className="small-words row-tail">
        Default: to a template; setting up a hole saw costs hours where a grinder takes half of one. The steps give both
        times.
      </p>
      <Pair>
        <QuantityField label="Depth" path={[...at, "depth_mm"]} />
        <PlainChoice
          label="Shape"
          value={notch.shape.kind}
          choices={[
            ["arc", "arc"],
            ["trapezoid", "straight-sided"],
          ]}
          choose={shape}
        />
      </Pair>
      {notch.shape.kind === "arc" ? (
        <Pair>
          <QuantityField label="Radius" path={[...at, "shape", "radius_mm"]} />
          <QuantityField label="Weld and fit-up" path={[...at, "weld_allowance_mm"]} />
        </Pair>
      ) : (
        <>
          <Pair>
            <QuantityField label="Width at top" path={[...at, "shape", "top_width_mm"]} />
            <QuantityField label="Width at mouth" path={[...at, "shape", "mouth_width_mm"]} />
          </Pair>
          <Pair>
            <QuantityField label="Corner radius" path={[...at, "shape", "corner_radius_mm"]} />
            <QuantityField label="Weld and fit-up" path={[...at, "weld_allowance_mm"]} />
          </Pair>
        </>
      )}
      <SideField op={notch} index={index} />
      <FigureList id={notch.id} />
      <Plate title="Liner" role="liner" notch={notch} index={index} />
      <Plate title="Outer side plate" role="outer_plate" notch={notch} index={index} />
      <Plate title="Inner side plate" role="inner_plate" notch={notch} index={index} />
      {!notch.bolts && <Plate title="Cap box on the other edge" role="cap" notch={notch} index={index} />}
      {!notch.cap && <Part op={notch} at={at} part={{ ...BOLTS, title: "Bolted on instead of welded" }} />}
      {may.design && <Act onClick={() => act({ kind: "remove", path: at })}>Take this notch out</Act>}
    </>
  );
}

/** One plate of the notch, there or not. */
function Plate({ title, role, notch, index }: { title: string; role: Role; notch: Notch; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const steels = useSteelChoices(true);
  const plate = notch[role];
  const at = ["design", "operations", index, role] as const;
  const turn = () => act({ kind: "set", path: at, value: plate ? null : NEW[role] });
  const button = may.design && <Act onClick={turn}>{plate ? "Leave it out" : "Add it"}</Act>;
  return (
    <Group title={title} extra={button}>
      {plate && (
        <>
          <Pair>
            <QuantityField label="Thickness" path={[...at, "thickness_mm"]} kind="thickness" />
            {role === "liner" ? (
              <ChoiceField label="Steel" path={[...at, "steel_id"]} choices={steels} />
            ) : (
              <QuantityField label="Overlap past the cut" path={[...at, "overlap_mm"]} />
            )}
          </Pair>
          {role === "cap" && (
            <Pair>
              <QuantityField label="Height" path={[...at, "height_mm"]} />
              <ChoiceField label="Ends" path={[...at, "end"]} choices={ENDS.slice(1)} />
            </Pair>
          )}
          {(role === "outer_plate" || role === "inner_plate") && (
            <Pair>
              <QuantityField label="Inside the edges by" path={[...at, "inset_mm"]} />
              <ChoiceField label="Ends" path={[...at, "end"]} choices={ENDS} />
            </Pair>
          )}
          <Pair>
            <QuantityField label="Weld leg" path={[...at, "weld_leg_mm"]} kind="thickness" />
            {role !== "liner" && <ChoiceField label="Steel" path={[...at, "steel_id"]} choices={steels} />}
          </Pair>
        </>
      )}
    </Group>
  );
}
