import { Box, Text } from "@chakra-ui/react";
import type { Feature } from "../api/types";
import { useMay } from "../app/session";
import { freshId } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { Act, ChoiceField, WordsField } from "../fields/controls";
import { Grid, GridRow } from "../fields/Grid";
import { QuantityField } from "../fields/QuantityField";

const WIDTHS = "minmax(11rem, 1fr) 8rem 6rem 7rem 7rem 7rem 2.4rem";
const KINDS = [
  ["axle-line", "axle line"],
  ["hanger", "hanger"],
  ["hole", "hole"],
  ["crossmember", "crossmember"],
  ["rail-end", "rail end"],
  ["other", "other"],
] as const;
const SIDES = [
  ["both", "both"],
  ["left", "left"],
  ["right", "right"],
] as const;

/** Named places on the frame; cuts and plates are measured from them. */
export function FeatureTable() {
  const act = useBench((s) => s.act);
  const survey = useBench((s) => shownDraft(s).survey);
  const may = useMay();
  const path = ["survey", "features"] as const;
  const add = () => {
    const ids = survey.features.map((f) => f.id);
    const value: Feature = {
      id: freshId("feature", ids),
      name: "new feature",
      kind: "other",
      side: "both",
      x_mm: survey.wheelbase_mm ?? 0,
    };
    act({ kind: "insert", path, value });
  };
  return (
    <Box>
      <Grid
        label="Features"
        heads={["name", "kind", "rail", "behind front axle", "above underside", "hole diameter"]}
        widths={WIDTHS}
      >
        {survey.features.map((feature, i) => (
          <GridRow
            key={feature.id}
            widths={WIDTHS}
            off={feature.id === survey.datum.feature_id}
            remove={() => act({ kind: "remove", path: [...path, i] })}
          >
            <WordsField label="Name" path={[...path, i, "name"]} />
            <ChoiceField label="Kind" path={[...path, i, "kind"]} choices={KINDS} />
            <ChoiceField label="Rail" path={[...path, i, "side"]} choices={SIDES} />
            <QuantityField label={`${feature.name}, station`} path={[...path, i, "x_mm"]} place />
            <QuantityField label={`${feature.name}, height`} path={[...path, i, "height_mm"]} optional />
            <QuantityField label={`${feature.name}, diameter`} path={[...path, i, "diameter_mm"]} optional />
          </GridRow>
        ))}
      </Grid>
      {may.design && <Act onClick={add}>Add a feature</Act>}
      <Text fontSize="13px" color="faint" mt="1">
        The datum feature stays. A hole needs its height and diameter before its distance to a cut is computed.
      </Text>
    </Box>
  );
}
