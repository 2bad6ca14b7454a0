import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useSteelChoices } from "../api/catalogue";
import { api, got, Refused } from "../api/client";
import type { Problem, Station } from "../api/types";
import { useMay } from "../app/session";
import { TroubleList } from "../app/TroubleList";
import { shownDraft, useBench, usePick } from "../draft/store";
import { Act, ChoiceField, PlainChoice } from "../fields/controls";
import { Grid, GridRow } from "../fields/Grid";
import { QuantityField } from "../fields/QuantityField";
import { useFile } from "../fields/useFile";
import { unitOf } from "../units/show";
import { AnalysisFields } from "./AnalysisFields";
import { FromDrawing } from "./FromDrawing";

const WIDTHS = "1.4rem minmax(8.4rem, 8.8rem) repeat(5, minmax(4.6rem, 7.4rem)) 2.4rem";
const FIELDS = [
  ["x_mm", "behind front axle", false],
  ["underside_z_mm", "underside", false],
  ["height_mm", "height", false],
  ["width_mm", "width", false],
  ["wall_mm", "wall", true],
  ["rust_loss_mm", "lost to rust", false],
] as const;
const KINDS = [
  ["channel", "channel"],
  ["lipped-channel", "channel with lips"],
  ["rect-tube", "rectangular tube"],
  ["round-tube", "round tube"],
  ["top-hat", "top-hat"],
  ["two-skin", "two skins"],
] as const;
const LIPS = [
  ["inward", "turned in"],
  ["outward", "turned out"],
] as const;

/** The stations of one rail, typed or brought in from CSV. */
export function StationTable() {
  const { side, act } = usePick("side", "act");
  const rails = useBench((s) => shownDraft(s).survey.rails);
  const may = useMay();
  const steels = useSteelChoices();
  const stations = rails[side].stations;
  const path = ["survey", "rails", side, "stations"] as const;
  const kind = rails[side].kind;
  /** A kind brings what it cannot be without. */
  const turnTo = (next: string) => {
    const rail = rails[side];
    const wall = stations[0]?.wall_mm ?? 3;
    const second_wall_mm = next === "two-skin" ? (rail.second_wall_mm ?? wall) : rail.second_wall_mm;
    const lip_mm = next === "lipped-channel" || next === "top-hat" ? rail.lip_mm || 20 : rail.lip_mm;
    act({ kind: "set", path: ["survey", "rails", side], value: { ...rail, kind: next, second_wall_mm, lip_mm } });
  };
  const other = side === "left" ? "right" : "left";
  const add = () => {
    const last = stations.at(-1);
    if (last) act({ kind: "insert", path, value: { ...last, x_mm: last.x_mm + 200 } satisfies Station });
  };
  return (
    <Box>
      <Flex gap="3" mb="2" align="end" wrap="wrap">
        <Text fontWeight="600" fontSize="15px">
          {side} rail, {stations.length} stations
        </Text>
        <Box w="10rem">
          <PlainChoice label="Section" value={rails[side].kind ?? "channel"} choices={KINDS} choose={turnTo} />
        </Box>
        <Box w="13rem">
          <ChoiceField label="Steel" path={["survey", "rails", side, "steel_id"]} choices={steels} />
        </Box>
        {(kind === "lipped-channel" || kind === "top-hat") && (
          <Box w="7rem">
            <QuantityField label="Lip" path={["survey", "rails", side, "lip_mm"]} />
          </Box>
        )}
        {kind === "lipped-channel" && (
          <Box w="8rem">
            <ChoiceField label="Lips" path={["survey", "rails", side, "lips"]} choices={LIPS} />
          </Box>
        )}
        {(kind === "two-skin" || kind === "top-hat") && (
          <Box w="8rem">
            <QuantityField
              label={kind === "top-hat" ? "Floor on it" : "Second skin"}
              path={["survey", "rails", side, "second_wall_mm"]}
              kind="thickness"
              optional={kind === "top-hat"}
            />
          </Box>
        )}
        {(kind === "channel" || kind === "lipped-channel") && (
          <Box w="8rem">
            <ChoiceField label="Opens" path={["survey", "rails", side, "opens"]} choices={OPENS} />
          </Box>
        )}
        <Box w="7rem">
          <QuantityField label="Web off centre" path={["survey", "rails", side, "web_y_mm"]} />
        </Box>
        <Box w="7rem">
          <QuantityField label="Inside radius" path={["survey", "rails", side, "inside_radius_mm"]} kind="thickness" />
        </Box>
      </Flex>
      <Grid label={`Stations of the ${side} rail`} heads={["", ...FIELDS.map((f) => f[1])]} widths={WIDTHS}>
        {stations.map((_, i) => (
          <GridRow
            // biome-ignore lint/suspicious/noArrayIndexKey: stations are told apart by their order
            key={i}
            widths={WIDTHS}
            off={stations.length <= 2}
            remove={() => act({ kind: "remove", path: [...path, i] })}
          >
            <Text color="faint" pt="1.5">
              {i + 1}
            </Text>
            {FIELDS.map(([field, name, optional]) => (
              <QuantityField
                key={field}
                label={`Station ${i + 1}, ${name}`}
                path={[...path, i, field]}
                optional={optional}
                place={field === "x_mm"}
                kind={field === "wall_mm" || field === "rust_loss_mm" ? "thickness" : "length"}
              />
            ))}
          </GridRow>
        ))}
      </Grid>
      {may.design && (
        <Flex gap="2" mt="1" wrap="wrap">
          <Act onClick={add}>Add a station</Act>
          <Act
            onClick={() => act({ kind: "set", path: ["survey", "rails", other], value: rails[side] })}
            hint="Only where both were measured alike"
          >
            Copy to the {other} rail
          </Act>
          <FromCsv />
          <FromDrawing />
        </Flex>
      )}
      <AnalysisFields />
    </Box>
  );
}

const OPENS = [
  ["inward", "inward"],
  ["outward", "outward"],
] as const;

/** Stations from a CSV file; errors name the line and nothing is taken until all lines are good. */
function FromCsv() {
  const { side, style, act } = usePick("side", "style", "act");
  const [problems, setProblems] = useState<Problem[]>([]);
  const take = async (chosen: File) => {
    try {
      const unit = unitOf("length", style) === "mm" ? "mm" : "in";
      const stations = await got(api.POST("/api/stations", { body: { text: await chosen.text(), unit } }));
      act({ kind: "set", path: ["survey", "rails", side, "stations"], value: stations });
      setProblems([]);
    } catch (error) {
      const message = error instanceof Error ? error.message : "not read";
      const own = error instanceof Refused ? error.problems : [];
      setProblems(own.length ? own : [{ pointer: "", message, found: "", expected: "" }]);
    }
  };
  const file = useFile("Stations as CSV", ".csv,text/csv,text/plain", (chosen) => void take(chosen));
  return (
    <>
      <Act onClick={file.ask} hint="Head line: x, underside, height, width, wall; a head may name a unit">
        From CSV
      </Act>
      {file.input}
      <TroubleList problems={problems} lead="The stations are as they were." />
    </>
  );
}
