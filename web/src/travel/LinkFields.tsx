import { useSteelChoices } from "../api/catalogue";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { ChoiceField, Group, Pair } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { showLength } from "../units/show";
import { Taped } from "./Taped";
import { useAxlePart } from "./useAxle";

const BOLTS = [
  ["square", "square to the link"],
  ["across", "across the vehicle"],
  ["along", "fore and aft"],
  ["upright", "upright"],
] as const;

/** A hard point: on the frame by its axes, on the axle from the hubs. */
export function PointFields({ label, path, on }: { label: string; path: Path; on: "frame" | "axle" }) {
  const names = ["back", "right", "up"];
  const from = on === "frame" ? "from the front axle, centre, datum" : "from the hubs and centre";
  return (
    <fieldset style={{ marginBottom: 6 }}>
      <legend className="small-words">
        {label} <span className="row-tail">{from}</span>
      </legend>
      <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr 1fr", gap: 6 }}>
        {(["x_mm", "y_mm", "z_mm"] as const).map((key, i) => (
          <QuantityField key={key} label={names[i] ?? ""} path={[...path, key]} />
        ))}
      </div>
      <Taped label={label} path={path} on={on} />
    </fieldset>
  );
}

/** A link as it is measured: length, and the angle that an angle finder reads. */
function Measured({ path }: { path: Path }) {
  const style = useBench((s) => s.style);
  const links = useAxlePart("links");
  const before = path[0] === "survey";
  const own = before ? undefined : links?.find((l) => path.join(".").endsWith(`layout.${l.path}`));
  if (!own) return null;
  const deg = own.lateral ? own.end_deg : own.side_deg;
  const fall = Math.abs(deg) < 0.05 ? "level" : `${Math.abs(deg).toFixed(1)}° ${deg > 0 ? "down" : "up"} to the axle`;
  return (
    <p className="small-words">
      <b>{showLength(own.length_mm, style)}</b> from joint to joint; {fall} seen from{" "}
      {own.lateral ? "behind" : "the side"}, {own.plan_deg.toFixed(1)}° off fore-and-aft in plan.
    </p>
  );
}

/** A link: both ends, its tube, its joints. */
export function LinkFields({ title, path }: { title: string; path: Path }) {
  const steels = useSteelChoices(true);
  return (
    <Group title={title}>
      <Measured path={path} />
      <PointFields label="Frame end" path={[...path, "frame"]} on="frame" />
      <PointFields label="Axle end" path={[...path, "axle"]} on="axle" />
      <Pair>
        <QuantityField label="Tube diameter" path={[...path, "tube", "od_mm"]} kind="thickness" />
        <QuantityField label="Tube wall" path={[...path, "tube", "wall_mm"]} kind="thickness" />
      </Pair>
      <Pair>
        <ChoiceField label="Tube steel" path={[...path, "tube", "steel_id"]} choices={steels} />
        <QuantityField label="Joint tilts by" path={[...path, "joints", "swing_deg"]} kind="angle" />
      </Pair>
      <Pair>
        <QuantityField label="Joint is rated" path={[...path, "joints", "rating_n"]} kind="force" optional />
        <ChoiceField label="Frame bolt lies" path={[...path, "joints", "frame_bolt"]} choices={BOLTS} />
      </Pair>
      <Pair>
        <ChoiceField label="Axle bolt lies" path={[...path, "joints", "axle_bolt"]} choices={BOLTS} />
        <QuantityField label="Bush" path={[...path, "joints", "bush_n_per_mm"]} kind="rate" optional />
      </Pair>
    </Group>
  );
}
