import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { Act, ChoiceField, Group, Pair, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PointFields } from "./LinkFields";
import { useCarriers } from "./RidesFields";
import { useBegun } from "./useBegun";

const PATH = ["design", "driveline"] as const;
const SIDES = [
  ["below", "below the shaft"],
  ["above", "above the shaft"],
] as const;

/** The shaft from gearbox to axle, with what it must clear. */
export function ShaftFields() {
  const shaft = useBench((s) => s.history.now.design.driveline);
  const act = useBench((s) => s.act);
  const may = useMay();
  const carriers = useCarriers();
  const set = (path: readonly (string | number)[], value: unknown) => act({ kind: "set", path, value });
  const begun = useBegun();
  const turn = () => (shaft ? set(PATH, null) : void begun.part(PATH, "driveline"));
  const near = shaft?.near ?? [];
  return (
    <Group title="Propeller shaft" extra={may.design && <Act onClick={turn}>{shaft ? "Leave it out" : "Add it"}</Act>}>
      {begun.trouble && <p role="alert">{begun.trouble}</p>}
      {shaft && (
        <>
          <ChoiceField label="Gearbox and bearing go with" path={[...PATH, "rides"]} choices={carriers} />
          <PointFields label="Joint at the gearbox" path={[...PATH, "gearbox"]} on="frame" />
          <PointFields label="Joint at the pinion" path={[...PATH, "pinion"]} on="axle" />
          <Pair>
            <QuantityField label="Gearbox, down to the rear" path={[...PATH, "gearbox_deg"]} kind="angle" />
            <QuantityField label="Joints stand to" path={[...PATH, "joint_deg"]} kind="angle" />
          </Pair>
          <Pair>
            <QuantityField label="Gearbox, to the right" path={[...PATH, "gearbox_plan_deg"]} kind="angle" />
            <QuantityField label="Pinion, to the right" path={[...PATH, "pinion_plan_deg"]} kind="angle" />
          </Pair>
          {may.design && (
            <Act
              onClick={() =>
                shaft.bearing ? set([...PATH, "bearing"], null) : void begun.part([...PATH, "bearing"], "bearing")
              }
            >
              {shaft.bearing ? "One piece again" : "Two pieces with a bearing"}
            </Act>
          )}
          {shaft.bearing && <PointFields label="Joint behind the bearing" path={[...PATH, "bearing"]} on="frame" />}
          <Pair>
            <QuantityField label="Shaft diameter" path={[...PATH, "tube_mm"]} kind="thickness" />
            <QuantityField label="Shaft wall" path={[...PATH, "wall_mm"]} kind="thickness" />
          </Pair>
          <Pair>
            <QuantityField label="Splines, whole" path={[...PATH, "slip_mm"]} />
            <QuantityField label="Engaged at ride" path={[...PATH, "engaged_mm"]} />
          </Pair>
          <Pair>
            <QuantityField label="Most turns a minute" path={[...PATH, "most_rpm"]} kind="number" />
            <QuantityField label="Tube clears by" path={[...PATH, "clearance_mm"]} />
          </Pair>
          {near.map((thing, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are known by their place only
            <Group key={i} title={thing.name}>
              <Pair>
                <WordsField label="What is near" path={[...PATH, "near", i, "name"]} />
                <ChoiceField label="It lies" path={[...PATH, "near", i, "lies"]} choices={SIDES} />
              </Pair>
              <Pair>
                <QuantityField label="Behind front axle" path={[...PATH, "near", i, "x_mm"]} />
                <QuantityField label="Its edge above datum" path={[...PATH, "near", i, "z_mm"]} />
              </Pair>
              {may.design && (
                <Act onClick={() => act({ kind: "remove", path: [...PATH, "near", i] })}>Take this out</Act>
              )}
            </Group>
          ))}
          {may.design && (
            <Act
              onClick={() =>
                act({
                  kind: "insert",
                  path: [...PATH, "near"],
                  value: { name: "crossmember", x_mm: shaft.gearbox.x_mm + 400, z_mm: -120, lies: "below" },
                })
              }
            >
              Something near the shaft
            </Act>
          )}
        </>
      )}
    </Group>
  );
}
