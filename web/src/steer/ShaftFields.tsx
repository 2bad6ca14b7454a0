import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { Pair, PlainChoice, TickField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PointFields } from "../travel/LinkFields";
import { Thing } from "../travel/Thing";
import type { Steering } from "./fresh";

type Shaft = NonNullable<Steering["shaft"]>;
const p = (x: number, y: number, z: number) => ({ x_mm: x, y_mm: y, z_mm: z });

/** A shaft of two joints from a column over the left rail down to the gear. */
export function freshShaft(gear: Steering["gear"], rail: number): Shaft {
  const to = gear.kind === "rack" ? p(60, -120, 0) : gear.box.shaft;
  const end = gear.kind === "rack" ? to : p(to.x_mm, to.y_mm, to.z_mm + 60);
  return {
    column: p(end.x_mm + 700, -rail + 40, end.z_mm + 700),
    joints: [p(end.x_mm + 430, -rail + 30, end.z_mm + 330), p(end.x_mm + 90, end.y_mm - 10, end.z_mm + 60)],
    gear: end,
    clocked_deg: 0,
    second_clocked_deg: 0,
    bearing: false,
    diameter_mm: 25,
    clamp: null,
  };
}

const CLAMP = { column_mm: 44.45, tube_mm: 50.8, wall_mm: 3.05, slot_mm: 3 };

/** From the column to the gear: joints in space, clocking, the bearing, the clamp on the column. */
export function ShaftFields({ steering, path, rail }: { steering: Steering; path: Path; rail: number }) {
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
    <Thing title="Column and shaft" at={at} there={shaft != null} fresh={freshShaft(steering.gear, rail)}>
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
      <Thing title="Clamp on the column" at={[...at, "clamp"]} there={shaft?.clamp != null} fresh={CLAMP}>
        <Pair>
          <QuantityField label="Column, outside" path={[...at, "clamp", "column_mm"]} kind="thickness" />
          <QuantityField label="Tube, outside" path={[...at, "clamp", "tube_mm"]} kind="thickness" />
        </Pair>
        <Pair>
          <QuantityField label="Tube, wall" path={[...at, "clamp", "wall_mm"]} kind="thickness" />
          <QuantityField label="Saw slot" path={[...at, "clamp", "slot_mm"]} kind="thickness" />
        </Pair>
      </Thing>
    </Thing>
  );
}
