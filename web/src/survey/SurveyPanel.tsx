import { Text } from "@chakra-ui/react";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { shownDraft, useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { ChoiceField, Group, Pair, PlainChoice, WordsField } from "../fields/controls";
import { InTheWay } from "../fields/InTheWay";
import { QuantityField } from "../fields/QuantityField";
import { TypedBefore } from "../fields/TypedBefore";
import { WheelFields } from "../fields/WheelFields";
import { Thing } from "../travel/Thing";
import { BeforeTeardown } from "./BeforeTeardown";
import { Checklist } from "./Checklist";
import { FirstAnswer } from "./FirstAnswer";
import { FromFloor } from "./FromFloor";

const AXLES = [
  ["", "as planned"],
  ["rear", "rear"],
  ["front", "front"],
  ["front and rear", "both"],
] as const;

/** What is there now, measured from which datum. */
export default function SurveyPanel({ job }: { job: JobHead }) {
  const features = useBench((s) => shownDraft(s).survey.features);
  const about = useBench((s) => shownDraft(s).survey.about ?? NONE);
  const inTheWay = useBench((s) => shownDraft(s).survey.in_the_way);
  const act = useBench((s) => s.act);
  const may = useMay();
  const datum = features.map((f) => [f.id, f.name] as const);
  return (
    <>
      <FirstAnswer />
      <BeforeTeardown job={job} />
      <Checklist />
      <Group title="Vehicle and datum">
        <WordsField label="Vehicle" path={["survey", "vehicle"]} />
        <ChoiceField label="Stations are told from" path={["survey", "datum", "feature_id"]} choices={datum} />
        <WordsField label="Heights are told from" path={["survey", "datum", "plane"]} />
        <QuantityField label="Wheelbase, hub to hub" path={["survey", "wheelbase_mm"]} optional />
        <PlainChoice
          label="Work on the axle"
          value={about.join(" and ")}
          choices={AXLES}
          choose={(value) => act({ kind: "set", path: ["survey", "about"], value: value ? value.split(" and ") : [] })}
        />
        <InTheWay
          things={inTheWay ?? []}
          take={(value) => act({ kind: "set", path: ["survey", "in_the_way"], value })}
          fixed={!may.design}
        />
      </Group>
      <AxleGroup name="rear" />
      <AxleGroup name="front" />
    </>
  );
}

/** One axle as it stands at stock ride height; heights are from the datum plane, below it is negative. */
function AxleGroup({ name }: { name: "front" | "rear" }) {
  const at = (field: string): string[] => ["survey", name, field];
  const act = useBench((s) => s.act);
  const wheel = useBench((s) => shownDraft(s).survey[name].wheel);
  const arch = useBench((s) => shownDraft(s).survey[name].arch);
  const figures = useShown((s) => s.result?.figures);
  const loaded = name === "rear" ? figures?.find((f) => f.id === "tyre-loaded") : undefined;
  return (
    <Group title={`${name === "rear" ? "Rear" : "Front"} axle at ride height`}>
      <Pair>
        <WordsField label="Tyre" path={at("tyre")} empty />
        <QuantityField label="Loaded radius" path={at("loaded_radius_mm")} optional />
      </Pair>
      <TypedBefore
        kinds={["tyre"]}
        label="A tyre from another job"
        take={(values) => {
          for (const [field, value] of Object.entries(values)) act({ kind: "set", path: at(field), value });
        }}
      />
      {loaded && (
        <Text fontSize="13px" color="faint" mb="1">
          Loaded radius {loaded.basis}.
        </Text>
      )}
      <Pair>
        <QuantityField label="Hub height, left" path={at("hub_z_left_mm")} optional />
        <QuantityField label="Hub height, right" path={at("hub_z_right_mm")} optional />
      </Pair>
      <FromFloor axle={name} />
      {name === "rear" && (
        <>
          <Pair>
            <QuantityField label="Tube to rail, left" path={at("tube_gap_left_mm")} optional />
            <QuantityField label="Tube to rail, right" path={at("tube_gap_right_mm")} optional />
          </Pair>
          <Pair>
            <QuantityField label="Tube diameter" path={at("tube_diameter_mm")} optional />
            <QuantityField label="Pinion, nose up" path={at("pinion_angle_deg")} kind="angle" optional />
          </Pair>
        </>
      )}
      <QuantityField label="Track" path={at("track_mm")} optional />
      <WheelFields title={`Wheels, ${name}`} at={at("wheel")} wheel={wheel} />
      <Thing
        title={`Wheel arch, ${name}`}
        at={at("arch")}
        there={arch != null}
        begin={() => act({ kind: "set", path: at("arch"), value: freshArch(name) })}
      >
        <Pair>
          <QuantityField label="Front edge, at hub height" path={at("arch").concat("front_x_mm")} />
          <QuantityField label="Rear edge" path={at("arch").concat("rear_x_mm")} />
        </Pair>
        <Pair>
          <QuantityField label="Top, above the datum plane" path={at("arch").concat("top_z_mm")} />
          <QuantityField label="Edge from the middle" path={at("arch").concat("edge_y_mm")} />
        </Pair>
        <ChoiceField label="When rails move, it goes with" path={at("arch").concat("rides")} choices={ARCH_RIDES} />
      </Thing>
    </Group>
  );
}

const ARCH_RIDES = [
  ["body", "the body between the axles"],
  ["rail", "the rails under it, as a bed does"],
  ["placed", "neither: it was measured on the finished frame"],
] as const;

/** An arch round the hubs, to be typed over. */
function freshArch(name: "front" | "rear") {
  const { survey } = useBench.getState().history.now;
  const x = name === "front" ? 0 : (survey.wheelbase_mm ?? 2600);
  const edge = (survey[name].track_mm ?? 1600) / 2 + 120;
  return {
    front_x_mm: x - 430,
    rear_x_mm: x + 430,
    top_z_mm: (survey[name].hub_z_left_mm ?? -150) + 450,
    edge_y_mm: edge,
    rides: "body",
  };
}
