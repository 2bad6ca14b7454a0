import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { ChoiceField, Group, Pair, PlainChoice } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { TypedBefore } from "../fields/TypedBefore";
import { PointFields } from "../travel/LinkFields";
import { type Gear, gearsFor } from "./gears";

const WAYS = [
  ["right", "to the right"],
  ["left", "to the left"],
] as const;
const TURNS = [
  ["clockwise", "clockwise, from above"],
  ["anticlockwise", "anticlockwise, from above"],
] as const;

type Props = { gear: Gear; path: Path; layout: Parameters<typeof gearsFor>[0]; choose: (kind: Gear["kind"]) => void };

/** What moves the rods: a rack, or a box with its arm. */
export function GearFields({ gear, path, layout, choose }: Props) {
  return (
    <Group title="Gear">
      <PlainChoice
        label="Kind of gear"
        value={gear.kind}
        choices={gearsFor(layout)}
        choose={(kind) => choose(kind as Gear["kind"])}
      />
      {gear.kind === "rack" ? (
        <>
          <Pair>
            <QuantityField label="Stroke, middle to end" path={[...path, "stroke_mm"]} />
            <QuantityField label="Turns, lock to lock" path={[...path, "turns"]} kind="number" />
          </Pair>
          <Pair>
            <QuantityField label="Boots, outside" path={[...path, "boot_mm"]} />
            <QuantityField
              label="Rack's tube, outside"
              path={[...path, "housing_mm"]}
              optional
              instead="as is common"
            />
          </Pair>
          <TypedBefore
            kinds={["rack"]}
            label="A rack from another job"
            take={(values) => useBench.getState().act({ kind: "set", path, value: { ...gear, ...values } })}
          />
          <ChoiceField label="Turned right, the rack moves" path={[...path, "input_right_moves"]} choices={WAYS} />
        </>
      ) : (
        <>
          <PointFields label="Box's shaft at the arm" path={[...path, "box", "shaft"]} on="frame" />
          <PointFields label="Pitman arm's end" path={[...path, "box", "arm_end"]} on="frame" />
          <Pair>
            <QuantityField label="Shaft leans rearward" path={[...path, "box", "lean_deg"]} kind="angle" />
            <QuantityField label="Shaft leans right" path={[...path, "box", "tilt_deg"]} kind="angle" />
          </Pair>
          <Pair>
            <QuantityField label="Arm swings each way" path={[...path, "box", "swing_deg"]} kind="angle" />
            <QuantityField label="Turns, lock to lock" path={[...path, "box", "turns"]} kind="number" />
          </Pair>
          <Pair>
            <QuantityField
              label="Box round its shaft"
              path={[...path, "box", "housing_mm"]}
              optional
              instead="as is common"
            />
            <QuantityField
              label="Arm to the box's top"
              path={[...path, "box", "housing_up_mm"]}
              optional
              instead="as is common"
            />
          </Pair>
          <ChoiceField
            label="Turned right, the arm turns"
            path={[...path, "box", "input_right_turns"]}
            choices={TURNS}
          />
        </>
      )}
      {gear.kind === "drag-link" && <PointFields label="Drag link, axle end" path={[...path, "knuckle"]} on="axle" />}
      {gear.kind === "centre-link" && <Idler gear={gear} path={path} />}
    </Group>
  );
}

function Idler({ gear, path }: { gear: Extract<Gear, { kind: "centre-link" }>; path: Path }) {
  const act = useBench((s) => s.act);
  const own = gear.idler != null;
  const { shaft, arm_end } = gear.box;
  const turn = () => {
    act({ kind: "set", path: [...path, "idler"], value: own ? null : { ...shaft, y_mm: -shaft.y_mm } });
    act({ kind: "set", path: [...path, "idler_end"], value: own ? null : { ...arm_end, y_mm: -arm_end.y_mm } });
  };
  return (
    <>
      <PlainChoice
        label="Idler arm"
        value={own ? "own" : "mirror"}
        choices={[
          ["mirror", "the pitman arm mirrored"],
          ["own", "given by itself"],
        ]}
        choose={(value) => (value === "own") !== own && turn()}
      />
      {own && <PointFields label="Idler's pivot" path={[...path, "idler"]} on="frame" />}
      {own && <PointFields label="Idler arm's end" path={[...path, "idler_end"]} on="frame" />}
    </>
  );
}
