import { Box, Flex, Text } from "@chakra-ui/react";
import { api, got } from "../api/client";
import type { Mass, Seat } from "../api/types";
import { useMay } from "../app/session";
import { useAsk } from "../cut/useFresh";
import { askedOfDraft } from "../draft/asked";
import { freshId, type Path } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Act, ChoiceField, Group, WordsField } from "../fields/controls";
import { Grid, GridRow } from "../fields/Grid";
import { QuantityField } from "../fields/QuantityField";
import { showFigure } from "../units/figure";
import { LOAD_STATES } from "../units/loadStates";
import { LoadPlanFields } from "./LoadPlanFields";
import { StockStops } from "./StockStops";

const MASS_WIDTHS = "minmax(11rem, 1fr) 6.5rem 7rem 7rem 7rem 7rem 2.4rem";
const NEAR_ONE = 1e-3;
type AxleName = Seat["axle"];

const sumOf = (seats: readonly Seat[], axle: AxleName) =>
  seats.filter((s) => s.axle === axle).reduce((sum, s) => sum + s.share, 0);

/** Seats with the usual shares of an axle, as the core shares them. */
const shared = (seats: readonly Seat[], axle: AxleName, both_ends = false) =>
  askedOfDraft(({ survey }) => {
    const line_mm = axle === "front" ? 0 : (survey.wheelbase_mm ?? 0);
    return got(api.POST("/api/seats/shared", { body: { seats: [...seats], axle, line_mm, both_ends } }));
  });

const SEAT_WIDTHS = "minmax(12rem, 1fr) 7rem 8rem 7rem 2.4rem";
const AXLES = [
  ["front", "front"],
  ["rear", "rear"],
] as const;

/** What the frame carries and where the axles carry the frame, as surveyed and as planned. */
export function LoadTables() {
  const figures = useShown((s) => s.result?.figures ?? NONE).filter((f) => f.id.startsWith("load-"));
  const style = useBench((s) => s.style);
  return (
    <Box>
      <Masses />
      {figures.length > 0 && (
        <Text fontSize="14px" mt="2">
          {figures.map((f) => `${f.name}: ${showFigure(f.value, f.unit, style)}`).join(". ")}.
        </Text>
      )}
      <Seats title="Seats as surveyed" path={["survey", "seats"]} />
      <Seats title="Seats as planned" path={["design", "seats"]} note="Empty: the surveyed seats stay." />
      <StockStops />
      <LoadPlanFields />
    </Box>
  );
}

function Masses() {
  const act = useBench((s) => s.act);
  const masses = useBench((s) => shownDraft(s).survey.masses);
  const may = useMay();
  const path = ["survey", "masses"] as const;
  const add = () => {
    const value: Mass = {
      id: freshId(
        "mass",
        masses.map((m) => m.id),
      ),
      name: "new mass",
      mass_kg: 100,
      x_mm: 1000,
      aboard: "bare",
    };
    act({ kind: "insert", path, value });
  };
  return (
    <Box data-field="/survey/masses" tabIndex={-1}>
      <Grid
        label="Masses"
        heads={[
          "carried by the frame",
          "mass",
          "from (station)",
          "to, where spread",
          "height of centre",
          "aboard from",
        ]}
        widths={MASS_WIDTHS}
      >
        {masses.map((mass, i) => (
          <GridRow key={mass.id} widths={MASS_WIDTHS} remove={() => act({ kind: "remove", path: [...path, i] })}>
            <WordsField label="Name" path={[...path, i, "name"]} />
            <QuantityField label={`${mass.name}, mass`} path={[...path, i, "mass_kg"]} kind="mass" />
            <QuantityField label={`${mass.name}, station`} path={[...path, i, "x_mm"]} place />
            <QuantityField label={`${mass.name}, end of the run`} path={[...path, i, "to_x_mm"]} place optional />
            <QuantityField label={`${mass.name}, height above the datum`} path={[...path, i, "z_mm"]} optional />
            <ChoiceField label={`${mass.name}, aboard from`} path={[...path, i, "aboard"]} choices={LOAD_STATES} />
          </GridRow>
        ))}
      </Grid>
      {may.design && <Act onClick={add}>Add a mass</Act>}
    </Box>
  );
}

function Seats({ title, path, note }: { title: string; path: Path; note?: string }) {
  const act = useBench((s) => s.act);
  const seats = useBench((s) => (path[0] === "survey" ? shownDraft(s).survey.seats : shownDraft(s).design.seats));
  const may = useMay();
  const { trouble, run } = useAsk();
  const put = (from: readonly Seat[], axle: AxleName, ends = false) =>
    run(async () => act({ kind: "set", path, value: await shared(from, axle, ends) }));
  const add = () => {
    const value: Seat = {
      id: freshId(
        "seat",
        seats.map((s) => s.id),
      ),
      name: "new seat",
      axle: "rear",
      x_mm: seats.findLast((s) => s.axle === "rear")?.x_mm ?? 2000,
      share: 1,
    };
    put([...seats, value], "rear");
  };
  const off = AXLES.map(([axle]) => ({ axle, sum: sumOf(seats, axle) })).filter(
    ({ axle, sum }) => seats.some((s) => s.axle === axle) && Math.abs(sum - 1) > NEAR_ONE,
  );
  return (
    <Group title={title}>
      <Box data-field={`/${path.join("/")}`} tabIndex={-1}>
        <Grid label={title} heads={["where the axle's load enters", "axle", "station", "share"]} widths={SEAT_WIDTHS}>
          {seats.map((seat, i) => (
            <GridRow key={seat.id} widths={SEAT_WIDTHS} remove={() => act({ kind: "remove", path: [...path, i] })}>
              <WordsField label="Name" path={[...path, i, "name"]} />
              <ChoiceField label="Axle" path={[...path, i, "axle"]} choices={AXLES} />
              <QuantityField label={`${seat.name}, station`} path={[...path, i, "x_mm"]} place />
              <QuantityField label={`${seat.name}, share`} path={[...path, i, "share"]} kind="number" />
            </GridRow>
          ))}
        </Grid>
        {off.map(({ axle, sum }) => (
          <Flex key={axle} role="alert" gap="2" align="center" my="1" wrap="wrap">
            <Text fontSize="14px" color="removed">
              The {axle} shares add up to {sum.toFixed(2)}, and make 1.
            </Text>
            <Act onClick={() => put(seats, axle)}>
              {seats.filter((s) => s.axle === axle).length === 2 ? "Two equal halves" : "Equal shares"}
            </Act>
            {seats.filter((s) => s.axle === axle).length === 1 && (
              <Act onClick={() => put(seats, axle, true)}>Two equal halves</Act>
            )}
          </Flex>
        ))}
        {trouble && <Text role="alert">{trouble}</Text>}
        {may.design && <Act onClick={add}>Add a seat</Act>}
        {note && seats.length === 0 && (
          <Text fontSize="13px" color="faint">
            {note}
          </Text>
        )}
      </Box>
    </Group>
  );
}
