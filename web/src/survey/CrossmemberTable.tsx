import { Box, Text } from "@chakra-ui/react";
import type { Crossmember } from "../api/types";
import { useMay } from "../app/session";
import { freshId, type Path } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { Act, ChoiceField, Group, WordsField } from "../fields/controls";
import { Grid, GridRow } from "../fields/Grid";
import { QuantityField } from "../fields/QuantityField";
import { showFigure } from "../units/figure";

const WIDTHS = "minmax(4.2rem, 1fr) 5.2rem 5.4rem 4.4rem 4.4rem 3.6rem 4.4rem 5.4rem 2rem";
const HEADS = ["name", "station", "profile", "height", "width", "wall", "middle up", "ends"] as const;
const PROFILES = [
  ["channel", "channel"],
  ["box", "box"],
  ["tube", "round tube"],
] as const;
const ENDS = [
  ["riveted", "riveted"],
  ["riveted-flanges", "riveted, web and flanges"],
  ["welded", "welded"],
  ["gusseted", "welded, gusset"],
] as const;

/** What ties the rails, as surveyed and added by the design: with it the frame's twist is computed. */
export function CrossmemberTable() {
  return (
    <Box>
      <Ties title="Crossmembers as surveyed" path={["survey", "crossmembers"]} />
      <Ties title="Crossmembers added by this design" path={["design", "crossmembers"]} />
      <Stiffness />
    </Box>
  );
}

function Ties({ title, path }: { title: string; path: Path }) {
  const act = useBench((s) => s.act);
  const rows = useBench((s) =>
    path[0] === "survey" ? shownDraft(s).survey.crossmembers : shownDraft(s).design.crossmembers,
  );
  const may = useMay();
  const add = () => {
    const id = freshId(
      "tie",
      rows.map((c) => c.id),
    );
    const sizes = { height_mm: 100, width_mm: 50, wall_mm: 4 };
    const value: Crossmember = {
      id,
      name: "new crossmember",
      x_mm: 1000,
      profile: "channel",
      end: "riveted",
      ...sizes,
    };
    act({ kind: "insert", path, value });
  };
  return (
    <Group title={title}>
      <Box data-field={`/${path.join("/")}`} tabIndex={-1}>
        <Grid label={title} heads={HEADS} widths={WIDTHS}>
          {rows.map((tie, i) => (
            <GridRow key={tie.id} widths={WIDTHS} remove={() => act({ kind: "remove", path: [...path, i] })}>
              <WordsField label="Name" path={[...path, i, "name"]} />
              <QuantityField label={`${tie.name}, station`} path={[...path, i, "x_mm"]} place />
              <ChoiceField label="Profile" path={[...path, i, "profile"]} choices={PROFILES} />
              <QuantityField label={`${tie.name}, height`} path={[...path, i, "height_mm"]} />
              <QuantityField label={`${tie.name}, width`} path={[...path, i, "width_mm"]} />
              <QuantityField label={`${tie.name}, wall`} path={[...path, i, "wall_mm"]} kind="thickness" />
              <QuantityField label={`${tie.name}, middle above the underside`} path={[...path, i, "up_mm"]} optional />
              <ChoiceField label="Ends" path={[...path, i, "end"]} choices={ENDS} />
            </GridRow>
          ))}
        </Grid>
        {may.design && <Act onClick={add}>Add a crossmember</Act>}
      </Box>
    </Group>
  );
}

/** The frame's torsional stiffness, stock and planned, with what it leaves out. */
export function Stiffness() {
  const figures = useShown((s) => s.result?.figures);
  const style = useBench((s) => s.style);
  const warping = figures?.find((f) => f.id.startsWith("warping-"));
  const [stock, planned, ratio] = ["twist-stock", "twist-planned", "twist-ratio"].map((id) =>
    figures?.find((f) => f.id === id),
  );
  if (!stock || !planned || !ratio) {
    return (
      <Text fontSize="14px">
        Torsional stiffness: not computed; it needs crossmembers, both tracks, masses and seats.
      </Text>
    );
  }
  return (
    <Text fontSize="14px" mt="1">
      Torsional stiffness {showFigure(stock.value, stock.unit, style)} in stock,{" "}
      <b>{showFigure(planned.value, planned.unit, style)}</b> planned, ×{ratio.value.toFixed(2)}; {stock.basis}.
      {warping && ` ${warping.name}: ${showFigure(warping.value, "N m", style)}; ${warping.basis}.`}
    </Text>
  );
}
