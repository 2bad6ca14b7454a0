import { Box, Flex, Text } from "@chakra-ui/react";
import { useCatalogue } from "../api/catalogue";
import type { AxleName } from "../api/types";
import { useMay } from "../app/session";
import { shownDraft, useBench } from "../draft/store";
import { Act, ChoiceField, Group, Pair, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

const AT = ["design", "loads"] as const;
const SIDES = [
  ["left", "left rail"],
  ["right", "right rail"],
] as const;

/** Load cases of this option: factors with their reasons, and the places that some cases need. */
export function LoadPlanFields() {
  return (
    <>
      <Cases />
      <Hole />
      {AXLES.map(([axle]) => (
        <Places key={axle} axle={axle} />
      ))}
      <Links />
    </>
  );
}

function Cases() {
  const { cases } = useCatalogue();
  const changed = useBench((s) => shownDraft(s).design.loads?.cases ?? {});
  const act = useBench((s) => s.act);
  const may = useMay();
  return (
    <Group title="Load cases of this option">
      {cases.map((c) => {
        const own = changed[c.id];
        const path = [...AT, "cases", c.id];
        const without = Object.fromEntries(Object.entries(changed).filter(([id]) => id !== c.id));
        const turn = () =>
          act(
            own
              ? { kind: "set", path: [...AT, "cases"], value: without }
              : { kind: "set", path, value: { factor: c.factor, reason: "own judgement" } },
          );
        return (
          <Box key={c.id} mb="1">
            <Flex gap="3" align="baseline">
              <Text fontSize="14px" flex="1">
                <b>{c.name}</b>, factor {own?.factor ?? c.factor}
                <Text as="span" color="faint">
                  : {own ? `${own.reason} (default ${c.factor})` : c.basis}
                </Text>
              </Text>
              {may.design && <Act onClick={turn}>{own ? "Back to the default" : "Own factor"}</Act>}
            </Flex>
            {own && (
              <Pair>
                <QuantityField label={`${c.name}, factor`} path={[...path, "factor"]} kind="number" />
                <WordsField label="Because" path={[...path, "reason"]} />
              </Pair>
            )}
          </Box>
        );
      })}
      <Pair>
        <QuantityField label="Tyres' grip at the limit" path={[...AT, "grip"]} kind="number" />
      </Pair>
    </Group>
  );
}

/** How deep the hole is that one wheel drops into. */
function Hole() {
  return (
    <Group title="One wheel in a hole">
      <Pair>
        <QuantityField label="Depth of the hole" path={[...AT, "hole_mm"]} />
      </Pair>
    </Group>
  );
}

/** Where a jack lifts one axle, and where its bump stops strike the rails. */
function Places({ axle }: { axle: AxleName }) {
  return (
    <>
      <Place
        title={`Jack, ${axle}`}
        field="jacks"
        axle={axle}
        fresh={(x) => ({ x_mm: x, side: "left", axle })}
        says="Say where a jack lifts it, and the frame on one jack is computed."
        label={`Jack ${axle}, behind front axle`}
      />
      <Place
        title={`Bump stops, ${axle}`}
        field="stops"
        axle={axle}
        fresh={(x) => ({ x_mm: x, axle })}
        says="Say where their pads strike the rails, and struck stops are computed."
        label={`Pads ${axle}, behind front axle`}
      />
    </>
  );
}

type PlaceProps = {
  title: string;
  field: "jacks" | "stops";
  axle: AxleName;
  fresh: (x: number) => unknown;
  says: string;
  label: string;
};

/** A place that a case needs, given or not. */
function Place({ title, field, axle, fresh, says, label }: PlaceProps) {
  const at = useBench((s) => (shownDraft(s).design.loads?.[field] ?? []).findIndex((p) => p.axle === axle));
  const act = useBench((s) => s.act);
  const station = useBench((s) => s.stationMm);
  const may = useMay();
  const path = [...AT, field];
  const turn = () =>
    act(
      at >= 0 ? { kind: "remove", path: [...path, at] } : { kind: "insert", path, value: fresh(Math.round(station)) },
    );
  return (
    <Group
      field={`/${path.join("/")}`}
      title={title}
      extra={may.design && <Act onClick={turn}>{at >= 0 ? "Leave it out" : "Give the place"}</Act>}
    >
      {at < 0 && <Text fontSize="13px">{says}</Text>}
      {at >= 0 && (
        <Pair>
          <QuantityField label={label} path={[...path, at, "x_mm"]} place />
          {field === "jacks" && <ChoiceField label="Under" path={[...path, at, "side"]} choices={SIDES} />}
        </Pair>
      )}
    </Group>
  );
}

/** Where an axle that hangs on links pushes along on the rails. */
function Links() {
  const links = useBench((s) => shownDraft(s).design.loads?.links ?? []);
  const act = useBench((s) => s.act);
  const base = useBench((s) => shownDraft(s).survey.wheelbase_mm ?? 2500);
  const may = useMay();
  const path = [...AT, "links"] as const;
  const add = () => {
    // links of a rear axle run forward to their brackets, those of a front one rearward
    const axle: AxleName = links.some((link) => link.axle === "rear") ? "front" : "rear";
    const [line, way] = axle === "rear" ? [base, -1] : [0, 1];
    const value = {
      axle,
      upper_x_mm: line + way * 450,
      upper_z_mm: 60,
      lower_x_mm: line + way * 600,
      lower_z_mm: -70,
    };
    act({ kind: "insert", path, value });
  };
  return (
    <Group field={`/${path.join("/")}`} title="Links that push on the rails">
      <Text fontSize="13px">
        An axle on one seat a side takes its push and its torque through links or arms; braking and launch need their
        places. They need not be typed where the axle's suspension is described in Travel. Heights are above the datum
        plane; links are taken as level.
      </Text>
      {links.map((link, i) => (
        <Box key={link.axle}>
          <Pair>
            <ChoiceField label="Axle" path={[...path, i, "axle"]} choices={AXLES} />
            {may.design && <Act onClick={() => act({ kind: "remove", path: [...path, i] })}>Leave it out</Act>}
          </Pair>
          <Pair>
            <QuantityField label="Upper link, behind front axle" path={[...path, i, "upper_x_mm"]} place />
            <QuantityField label="Upper link, height" path={[...path, i, "upper_z_mm"]} />
          </Pair>
          <Pair>
            <QuantityField label="Lower link, behind front axle" path={[...path, i, "lower_x_mm"]} place />
            <QuantityField label="Lower link, height" path={[...path, i, "lower_z_mm"]} />
          </Pair>
        </Box>
      ))}
      {may.design && links.length < 2 && <Act onClick={add}>Add links</Act>}
    </Group>
  );
}

const AXLES = [
  ["rear", "rear"],
  ["front", "front"],
] as const;
