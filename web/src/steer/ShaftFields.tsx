import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { Pair, PlainChoice, TickField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PointFields } from "../travel/LinkFields";
import { BegunThing } from "../travel/Thing";
import type { Steering } from "./gears";

const p = (x: number, y: number, z: number) => ({ x_mm: x, y_mm: y, z_mm: z });

/** From the column to the gear: joints in space, clocking, the bearing, the clamp on the column. */
export function ShaftFields({ steering, path }: { steering: Steering; path: Path }) {
  const act = useBench((s) => s.act);
  const { shaft } = steering;
  const at = [...path, "shaft"];
  const joints = shaft?.joints ?? [];
  const count = (wanted: number) => {
    if (!shaft) return;
    const last = joints.at(-1) ?? shaft.gear;
    const before = joints.at(-2) ?? shaft.column;
    const middle = p((last.x_mm + before.x_mm) / 2, (last.y_mm + before.y_mm) / 2, (last.z_mm + before.z_mm) / 2 + 20);
    const more =
      wanted > joints.length ? [...joints.slice(0, -1), middle, last] : [...joints.slice(0, wanted - 1), last];
    act({ kind: "set", path: [...at, "joints"], value: more });
  };
  return (
    <BegunThing title="Column and shaft" at={at} there={shaft != null} part="column">
      <PlainChoice
        label="Joints"
        value={String(joints.length)}
        choices={[
          ["2", "two"],
          ["3", "three, with a bearing"],
        ]}
        choose={(value) => count(Number(value))}
      />
      <PointFields label="Steering wheel's middle" path={[...at, "column"]} on="frame" />
      {joints.map((joint, k) => (
        <PointFields
          key={`${joints.length}-${joint.x_mm}-${joint.z_mm}`}
          label={`Joint ${k + 1}`}
          path={[...at, "joints", k]}
          on="frame"
        />
      ))}
      <PointFields label="On the gear's input shaft" path={[...at, "gear"]} on="frame" />
      <Pair>
        <QuantityField label="Yokes clocked by" path={[...at, "clocked_deg"]} kind="angle" />
        <QuantityField label="Shaft, diameter" path={[...at, "diameter_mm"]} kind="thickness" />
      </Pair>
      {joints.length === 3 && (
        <QuantityField label="Second shaft clocked by" path={[...at, "second_clocked_deg"]} kind="angle" />
      )}
      {joints.length === 3 && <TickField label="Support bearing on the middle shaft" path={[...at, "bearing"]} />}
      <BegunThing title="Clamp on the column" at={[...at, "clamp"]} there={shaft?.clamp != null} part="clamp">
        <Pair>
          <QuantityField label="Column, outside" path={[...at, "clamp", "column_mm"]} kind="thickness" />
          <QuantityField label="Tube, outside" path={[...at, "clamp", "tube_mm"]} kind="thickness" />
        </Pair>
        <Pair>
          <QuantityField label="Tube, wall" path={[...at, "clamp", "wall_mm"]} kind="thickness" />
          <QuantityField label="Saw slot" path={[...at, "clamp", "slot_mm"]} kind="thickness" />
        </Pair>
      </BegunThing>
    </BegunThing>
  );
}
