import { Text } from "@chakra-ui/react";
import type { JobHead } from "../api/types";
import { shownDraft, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { ChoiceField, Group, Pair, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { BeforeTeardown } from "./BeforeTeardown";

/** What is there now, measured from which datum. */
export default function SurveyPanel({ job }: { job: JobHead }) {
  const features = useBench((s) => shownDraft(s).survey.features);
  const datum = features.map((f) => [f.id, f.name] as const);
  return (
    <>
      <BeforeTeardown job={job} />
      <Group title="Vehicle and datum">
        <WordsField label="Vehicle" path={["survey", "vehicle"]} />
        <ChoiceField label="Stations are told from" path={["survey", "datum", "feature_id"]} choices={datum} />
        <WordsField label="Heights are told from" path={["survey", "datum", "plane"]} />
        <QuantityField label="Wheelbase, hub to hub" path={["survey", "wheelbase_mm"]} optional />
      </Group>
      <AxleGroup name="rear" />
      <AxleGroup name="front" />
    </>
  );
}

/** One axle as it stands at stock ride height; heights are from the datum plane, below it is negative. */
function AxleGroup({ name }: { name: "front" | "rear" }) {
  const at = (field: string) => ["survey", name, field] as const;
  const figures = useShown((s) => s.result?.figures);
  const loaded = name === "rear" ? figures?.find((f) => f.id === "tyre-loaded") : undefined;
  return (
    <Group title={`${name === "rear" ? "Rear" : "Front"} axle at ride height`}>
      <Pair>
        <WordsField label="Tyre" path={at("tyre")} empty />
        <QuantityField label="Loaded radius" path={at("loaded_radius_mm")} optional />
      </Pair>
      {loaded && (
        <Text fontSize="13px" color="faint" mb="1">
          Loaded radius {loaded.basis}.
        </Text>
      )}
      <Pair>
        <QuantityField label="Hub height, left" path={at("hub_z_left_mm")} optional />
        <QuantityField label="Hub height, right" path={at("hub_z_right_mm")} optional />
      </Pair>
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
    </Group>
  );
}
