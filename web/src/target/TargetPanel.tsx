import { Text } from "@chakra-ui/react";
import { useState } from "react";
import type { AxleName } from "../api/types";
import { shownDraft, useBench } from "../draft/store";
import { useMainAxle, useShown } from "../evaluation/useEvaluation";
import { Group, Pair, PlainChoice } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { showLength } from "../units/show";
import { DropStack, stackPath } from "./DropStack";
import { HeightTable } from "./HeightTable";
import { NotchAsked } from "./NotchAsked";
import { StrengthRule } from "./StrengthRule";

/** How low at both axles, made up of what, with how much travel. */
export default function TargetPanel() {
  const main = useMainAxle();
  const [chosen, choose] = useState<AxleName | null>(null);
  const axle = chosen ?? main;
  return (
    <>
      <PlainChoice
        label="Axle"
        value={axle}
        choices={[
          ["rear", "rear axle"],
          ["front", "front axle"],
        ]}
        choose={(value) => choose(value === "front" ? "front" : "rear")}
      />
      <QuantityField
        key={axle}
        label={`Target drop at the ${axle} axle`}
        path={[...stackPath(axle), "drop_mm"]}
        note="Positive when the body goes down."
      />
      {axle === "front" && (
        <QuantityField
          label="Bump of the front axle"
          path={["design", "targets", "front", "bump_mm"]}
          optional
          note="Where no front suspension is designed; for the rails' height at full bump."
        />
      )}
      <DropStack key={`${axle}-stack`} axle={axle} />
      <HeightTable />
      <Group title="Travel and path">
        <Pair>
          <QuantityField label="Bump wanted" path={["design", "targets", "bump_mm"]} />
          <QuantityField label="Droop wanted" path={["design", "targets", "droop_mm"]} />
        </Pair>
        <AxlePathFields />
        <ClearanceLine />
      </Group>
      <NotchAsked />
      <StrengthRule />
    </>
  );
}

function AxlePathFields() {
  const path = useBench((s) => shownDraft(s).design.targets.path);
  const act = useBench((s) => s.act);
  const at = ["design", "targets", "path"] as const;
  const choose = (kind: string) => {
    const arc = { kind: "arc", radius_mm: 700, pivot: "ahead", pivot_above_mm: 0 };
    act({ kind: "set", path: at, value: kind === "arc" ? arc : { kind: "straight" } });
  };
  return (
    <>
      <PlainChoice
        label="The axle moves"
        value={path.kind}
        choices={[
          ["straight", "straight up and down"],
          ["arc", "on an arc about a pivot"],
        ]}
        choose={choose}
      />
      {path.kind === "arc" && (
        <>
          <Pair>
            <QuantityField label="Arc radius" path={[...at, "radius_mm"]} />
            <QuantityField label="Pivot above axle" path={[...at, "pivot_above_mm"]} />
          </Pair>
          <PlainChoice
            label="Pivot"
            value={path.pivot}
            choices={[
              ["ahead", "ahead of the axle"],
              ["behind", "behind the axle"],
            ]}
            choose={(pivot) => act({ kind: "set", path: [...at, "pivot"], value: pivot })}
          />
        </>
      )}
    </>
  );
}

/** The clearance that the notch is planned with; it is a limit, so it is changed where its reason is kept. */
function ClearanceLine() {
  const style = useBench((s) => s.style);
  const check = useShown((s) => s.result?.checks.find((c) => c.limit_id === "metal-clearance"));
  if (!check) return null;
  return (
    <Text fontSize="14px" mt="1">
      Clearance to metal: <b>{showLength(check.limit, style)}</b>. It is a limit: open{" "}
      <i>Moving metal to fixed metal</i> in the margins to change it with a reason.
    </Text>
  );
}
