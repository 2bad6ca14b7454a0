import type { Suspension } from "../api/types";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { ChoiceField, Group, Pair, PlainChoice } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { TypedBefore } from "../fields/TypedBefore";
import { pointerOf } from "../fields/trouble";
import { LeafFields } from "./LeafFields";
import { PointFields } from "./LinkFields";
import { BegunThing } from "./Thing";
import { useBegun } from "./useBegun";

const KINDS = [
  ["", "none chosen"],
  ["coilover", "coilover"],
  ["air", "air spring"],
  ["leaf", "leaf spring"],
  ["torsion", "torsion bar"],
] as const;

const KEYS = [
  ["behind", "behind the arm"],
  ["ahead", "ahead of the arm"],
] as const;

type Field = readonly [string, string, "length" | "number" | "pressure"];
const LINK_WAYS = [
  ["down", "down to the axle"],
  ["up", "up to the axle"],
] as const;
const COIL: readonly Field[] = [
  ["free_mm", "Coil, free length", "length"],
  ["block_mm", "Coil, closed", "length"],
  ["open_mm", "Damper open, eye to eye", "length"],
  ["closed_mm", "Damper closed", "length"],
];
const AIR: readonly Field[] = [
  ["least_mm", "Least height", "length"],
  ["most_mm", "Most height", "length"],
  ["area_mm2", "Effective area, mm²", "number"],
  ["area_per_mm", "Area per mm taller", "number"],
  ["volume_mm3", "Air volume, mm³", "number"],
  ["most_bar", "Most pressure", "pressure"],
  ["plate_deg", "Lower plate, nose up, °", "number"],
];

/** What the axle stands on, and what stops it. */
export function SpringFields({ own, path, independent }: { own: Suspension; path: Path; independent: boolean }) {
  const act = useBench((s) => s.act);
  const begun = useBegun();
  const springs = own.springs;
  const choose = (kind: string) => {
    if (kind) void begun.part(at, "springs", kind);
    else act({ kind: "set", path: at, value: null });
  };
  const at = [...path, "springs"];
  const hasArms = own.layout.kind in ARMS;
  const rows = springs?.kind === "coilover" ? COIL : springs?.kind === "air" ? AIR : [];
  return (
    <>
      <Group field={pointerOf(at)} title="Springs">
        <PlainChoice
          label="Spring"
          value={springs?.kind ?? ""}
          choices={hasArms ? KINDS : KINDS.filter(([kind]) => kind !== "torsion" || springs?.kind === kind)}
          choose={choose}
        />
        {springs && (
          <TypedBefore
            kinds={[springs.kind]}
            label="One from another job"
            take={(values) => act({ kind: "set", path: at, value: { ...springs, ...values } })}
          />
        )}
        {begun.trouble && <p role="alert">{begun.trouble}</p>}
        {springs?.kind === "torsion" && (
          <>
            <Foothold at={at} on={springs.on} layout={own.layout.kind} label="Twisted by" arms />
            <Pair>
              <QuantityField label="Bar diameter" path={[...at, "diameter_mm"]} kind="thickness" />
              <QuantityField label="Length that twists" path={[...at, "length_mm"]} />
            </Pair>
            <PlainChoice
              label="Its key stands"
              value={springs.anchor ?? "behind"}
              choices={KEYS}
              choose={(value) => act({ kind: "set", path: [...at, "anchor"], value })}
            />
          </>
        )}
        {(springs?.kind === "coilover" || springs?.kind === "air") && (
          <>
            <Foothold at={at} on={springs.on} layout={own.layout.kind} />
            <PointFields label={`Lower end, right, ${onWhat(springs.on)}`} path={[...at, "lower"]} on="axle" />
            <PointFields label="Upper end, right, on the frame" path={[...at, "upper"]} on="frame" />
          </>
        )}
        {springs?.kind === "leaf" && <PointFields label="Seat, right" path={[...at, "seat"]} on="axle" />}
        {(springs?.kind === "coilover" || springs?.kind === "leaf") && (
          <QuantityField label="Rate" path={[...at, "rate_n_per_mm"]} kind="rate" />
        )}
        {springs?.kind === "coilover" && <PairFields at={at} count={springs.count ?? 1} />}
        {springs?.kind === "leaf" && <LeafFields at={at} />}
        {pairs(rows).map((pair) => (
          <Pair key={pair[0]?.[0]}>
            {pair.map(([key, label, kind]) => (
              <QuantityField key={key} label={label} path={[...at, key]} kind={kind} />
            ))}
          </Pair>
        ))}
      </Group>
      {springs && springs.kind !== "coilover" && (
        <BegunThing title="Damper of its own" at={[...path, "damper"]} there={own.damper != null} part="damper">
          <Foothold at={[...path, "damper"]} on={own.damper?.on} layout={own.layout.kind} />
          <PointFields
            label={`Lower eye, right, ${onWhat(own.damper?.on)}`}
            path={[...path, "damper", "lower"]}
            on="axle"
          />
          <PointFields label="Upper eye, right, on the frame" path={[...path, "damper", "upper"]} on="frame" />
          <Pair>
            <QuantityField label="Open, eye to eye" path={[...path, "damper", "open_mm"]} />
            <QuantityField label="Closed" path={[...path, "damper", "closed_mm"]} />
          </Pair>
          <PairFields at={[...path, "damper"]} count={own.damper?.count ?? 1} />
        </BegunThing>
      )}
      <BegunThing title="Limit strap" at={[...path, "strap"]} there={own.strap != null} part="strap">
        <PointFields label="Lower end, right, on the axle" path={[...path, "strap", "lower"]} on="axle" />
        <PointFields label="Upper end, right, on the frame" path={[...path, "strap", "upper"]} on="frame" />
        <QuantityField label="Length, taut" path={[...path, "strap", "length_mm"]} />
      </BegunThing>
      <BegunThing title="Anti-roll bar" at={[...path, "anti_roll"]} there={own.anti_roll != null} part="anti_roll">
        <Pair>
          <QuantityField label="Bar diameter" path={[...path, "anti_roll", "diameter_mm"]} kind="thickness" />
          <QuantityField label="Straight length" path={[...path, "anti_roll", "length_mm"]} />
        </Pair>
        <QuantityField label="Arm" path={[...path, "anti_roll", "arm_mm"]} />
        <PointFields label="Drop link on the axle, right" path={[...path, "anti_roll", "drop"]} on="axle" />
        <BegunThing
          title="Where it runs"
          at={[...path, "anti_roll", "runs"]}
          there={own.anti_roll?.runs != null}
          part="runs"
        >
          <PointFields
            label="Bar's bend, right, on its axis"
            path={[...path, "anti_roll", "runs", "bend"]}
            on="frame"
          />
          <QuantityField label="Drop link, hole to hole" path={[...path, "anti_roll", "runs", "link_mm"]} />
          <ChoiceField
            label="From the arm the link goes"
            path={[...path, "anti_roll", "runs", "link_hangs"]}
            choices={LINK_WAYS}
          />
        </BegunThing>
      </BegunThing>
      {independent && (
        <BegunThing title="Half shaft" at={[...path, "half_shaft"]} there={own.half_shaft != null} part="half_shaft">
          <PointFields label="Inner joint, right" path={[...path, "half_shaft", "inner"]} on="frame" />
          <PointFields label="Outer joint, right" path={[...path, "half_shaft", "outer"]} on="axle" />
          <Pair>
            <QuantityField label="Joints stand to" path={[...path, "half_shaft", "joint_deg"]} kind="angle" />
            <QuantityField label="Plunge allowed" path={[...path, "half_shaft", "plunge_mm"]} />
          </Pair>
        </BegunThing>
      )}
      <BegunThing title="Bump stop" at={[...path, "stop"]} there={own.stop != null} part="stop">
        <StopFields own={own} at={[...path, "stop"]} />
      </BegunThing>
    </>
  );
}

const PLACES = [
  ["", "not placed: its gap is typed"],
  ["frame", "on the frame"],
  ["damper", "on the damper's shaft"],
] as const;

/** A bump stop by its gap, or by its place: then the gap follows from the arc of what strikes it. */
function StopFields({ own, at }: { own: Suspension; at: Path }) {
  const act = useBench((s) => s.act);
  const begun = useBegun();
  const place = own.stop?.place;
  const to = [...at, "place"];
  const choose = (kind: string) =>
    kind ? void begun.part(to, "stop_place", kind) : act({ kind: "set", path: to, value: null });
  return (
    <>
      <PlainChoice label="Where it stands" value={place?.kind ?? ""} choices={PLACES} choose={choose} />
      {begun.trouble && <p role="alert">{begun.trouble}</p>}
      {!place && (
        <Pair>
          <QuantityField label="Strikes after" path={[...at, "gap_mm"]} />
          <QuantityField label="Gives at 3 g" path={[...at, "gives_mm"]} />
        </Pair>
      )}
      {place && (
        <Pair>
          <QuantityField label="Tall, free" path={[...to, "tall_mm"]} />
          <QuantityField label="Pressed together at 3 g" path={[...to, "squash_mm"]} />
        </Pair>
      )}
      {place?.kind === "frame" && (
        <>
          <Foothold at={to} on={place.on} layout={own.layout.kind} />
          <PointFields label="Its base, right, on the frame" path={[...to, "base"]} on="frame" />
          <PointFields label={`What strikes it, ${onWhat(place.on)}`} path={[...to, "pad"]} on="axle" />
          <Pair>
            <QuantityField label="Its tip leans outward" path={[...to, "lean_deg"]} kind="angle" />
            <QuantityField label="Its tip leans rearward" path={[...to, "rake_deg"]} kind="angle" />
          </Pair>
          <QuantityField label="Shims under it" path={[...to, "shims_mm"]} kind="thickness" />
        </>
      )}
    </>
  );
}

const ARMS: Partial<Record<Suspension["layout"]["kind"], readonly (readonly [string, string])[]>> = {
  strut: [
    ["upright", "the upright"],
    ["lower-arm", "the lower arm"],
  ],
  "double-wishbone": [
    ["upright", "the upright"],
    ["lower-arm", "the lower wishbone"],
    ["upper-arm", "the upper wishbone"],
  ],
};

const onWhat = (on?: string) => (on && on !== "upright" ? "on the arm" : "on the axle");

/** What a lower end stands on, where there are arms to stand on or one was chosen before. */
function Foothold({
  at,
  on = "upright",
  layout,
  label = "Lower end stands on",
  arms = false,
}: {
  at: Path;
  on?: string;
  layout: Suspension["layout"]["kind"];
  label?: string;
  arms?: boolean;
}) {
  const act = useBench((s) => s.act);
  const all = ARMS[layout] ?? ARMS["double-wishbone"] ?? [];
  const choices = arms ? all.filter(([key]) => key !== "upright") : all;
  if (!ARMS[layout] && on === "upright") return null;
  return (
    <PlainChoice
      label={label}
      value={on}
      choices={choices}
      choose={(value) => act({ kind: "set", path: [...at, "on"], value })}
    />
  );
}

/** One damper a side or two, one behind the other. */
function PairFields({ at, count }: { at: Path; count: number }) {
  const act = useBench((s) => s.act);
  return (
    <Pair>
      <PlainChoice
        label="On each side"
        value={String(count)}
        choices={[
          ["1", "one"],
          ["2", "two, sharing the force"],
        ]}
        choose={(value) => act({ kind: "set", path: [...at, "count"], value: Number(value) })}
      />
      {count === 2 && <QuantityField label="Between the two" path={[...at, "apart_mm"]} />}
    </Pair>
  );
}

function pairs<T>(rows: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(rows.length / 2) }, (_, i) => rows.slice(2 * i, 2 * i + 2));
}
