import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Layout, Suspension } from "../api/types";
import { useMay } from "../app/session";
import { useBench, usePick } from "../draft/store";
import { useMainAxle } from "../evaluation/useEvaluation";
import { Act, ChoiceField, Group, Pair, PlainChoice, TickField, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { WheelFields } from "../fields/WheelFields";
import { LOAD_STATES } from "../units/loadStates";
import { BoughtArm } from "./BoughtArm";
import { CoilFinder } from "./CoilFinder";
import { EndsTable } from "./EndsTable";
import { TravelFacts } from "./Facts";
import { HoleFinder } from "./HoleFinder";
import { HoseFields } from "./HoseFields";
import { LinkFields, PointFields } from "./LinkFields";
import { LinkForces } from "./LinkForces";
import { LAYOUTS, specOf } from "./layouts";
import { MountsAsked } from "./MountsAsked";
import { pathOf } from "./paths";
import { RidesFields } from "./RidesFields";
import { ShaftFields } from "./ShaftFields";
import { SpringFields } from "./SpringFields";
import { StandsTable } from "./StandsTable";
import { BegunThing } from "./Thing";
import { useIndex } from "./useAxle";
import { useBegun } from "./useBegun";
import { WindowFinder } from "./WindowFinder";

const HOUSINGS = [
  ["not known", "not known"],
  ["steel", "steel"],
  ["cast", "cast: never welded"],
] as const;
const LATERALS = [
  ["track-bar", "track bar"],
  ["watts", "Watt's link"],
] as const;

/** What holds each axle, what it stands on, and how far it moves. */
export default function TravelPanel() {
  // the committed draft: while a point is dragged only the fields it moves draw again
  const before = useBench((s) => s.before);
  const root = before ? "survey" : "design";
  const all = useBench((s) => s.history.now[root].suspensions) ?? [];
  const planned = useIndex().index;
  const index = Math.min(planned, Math.max(all.length - 1, 0));
  const put = useBench((s) => s.put);
  const may = useMay();
  const own = all[index];
  return (
    <>
      <Flex gap="1" mb="2" role="group" aria-label="Which suspension">
        <Act main={!before} onClick={() => put({ before: false })}>
          Planned
        </Act>
        <Act main={before} onClick={() => put({ before: true })} hint="Drawn faintly behind the planned one">
          As it was
        </Act>
      </Flex>
      {all.length > 1 && (
        <Flex gap="1" mb="2">
          {all.map((s, i) => (
            <Act key={s.axle} main={i === index} onClick={() => put({ suspension: i })}>
              {s.axle === "rear" ? "Rear axle" : "Front axle"}
            </Act>
          ))}
        </Flex>
      )}
      {own && <Fields key={`${root}${own.axle}`} own={own} index={index} root={root} />}
      {own?.axle === "rear" && !before && <ShaftFields />}
      {may.design && all.length < 2 && <AddSuspension taken={all.map((s) => s.axle)} root={root} />}
    </>
  );
}

/** Layouts to begin with, for an axle that nothing holds yet. */
type Root = "design" | "survey";

function AddSuspension({ taken, root }: { taken: readonly string[]; root: Root }) {
  const put = useBench((s) => s.put);
  const free = (["rear", "front"] as const).filter((a) => !taken.includes(a));
  const main = useMainAxle();
  const [chosen, setAxle] = useState<"front" | "rear" | null>(null);
  const axle = chosen ?? main;
  const at = free.includes(axle) ? axle : (free[0] ?? main);
  const begun = useBegun();
  const add = async (kind: Layout["kind"]) => {
    const before = useBench.getState().history.now[root].suspensions?.length ?? 0;
    if (await begun.suspension(root, at, kind)) put({ suspension: before, travelMm: 0, rollDeg: 0 });
  };
  return (
    <Group
      field={`/${root}/suspensions`}
      title={
        taken.length
          ? "Add the other axle"
          : root === "survey"
            ? "What held the axle before?"
            : "What is to hold the axle?"
      }
    >
      {free.length > 1 && (
        <PlainChoice
          label="Axle"
          value={at}
          choices={[
            ["rear", "rear"],
            ["front", "front"],
          ]}
          choose={(value) => setAxle(value === "front" ? "front" : "rear")}
        />
      )}
      <Box role="group" aria-label="Layouts" mt="1">
        {LAYOUTS.map((layout) => (
          <Box
            key={layout.kind}
            as="button"
            display="block"
            width="100%"
            textAlign="start"
            p="1.5"
            mb="1"
            bg="sheet"
            onClick={() => void add(layout.kind)}
          >
            <Text fontWeight="600" fontSize="15px">
              {layout.name}
            </Text>
            <Text fontSize="13px" color="faint">
              {layout.says}
            </Text>
          </Box>
        ))}
      </Box>
    </Group>
  );
}

/** Whether a link's end swings about its other end while it is dragged. */
function HoldLength() {
  const { holdLength, put } = usePick("holdLength", "put");
  return (
    <Act
      pressed={holdLength}
      onClick={() => put({ holdLength: !holdLength })}
      hint="A dragged end swings about the other one"
    >
      {holdLength ? "Dragging holds a link's length" : "Dragging changes a link's length"}
    </Act>
  );
}

/** Links of a layout that can be searched, by their path. */
function linksOf(layout: Layout): (readonly [string, string])[] {
  const parts = (specOf(layout.kind)?.parts ?? []).filter((p) => p.is === "link").map((p) => [p.at, p.title] as const);
  const bar = "lateral" in layout && layout.lateral.kind === "track-bar";
  return bar ? [...parts, ["lateral.bar", "Track bar"] as const] : parts;
}

function Fields({ own, index, root }: { own: Suspension; index: number; root: Root }) {
  const { act, put } = usePick("act", "put");
  const may = useMay();
  const path = [root, "suspensions", index] as const;
  const before = root === "survey";
  const spec = specOf(own.layout.kind);
  const begun = useBegun();
  const change = (kind: string) => void begun.part([...path, "layout"], "layout", kind);
  const independent = ["trailing", "multi-link", "double-wishbone", "strut"].includes(own.layout.kind);
  const lateral = "lateral" in own.layout ? own.layout.lateral : null;
  return (
    <>
      <WordsField label="Name" path={[...path, "name"]} />
      <PlainChoice
        label="Layout"
        value={own.layout.kind}
        choices={LAYOUTS.map((l) => [l.kind, l.name] as const)}
        choose={change}
      />
      <p className="small-words row-tail">{spec?.says}.</p>
      <Pair>
        <QuantityField label="Bump at the wheel" path={[...path, "bump_mm"]} />
        <QuantityField label="Droop at the wheel" path={[...path, "droop_mm"]} />
      </Pair>
      {!before && may.design && <HoldLength />}
      {!before && <RidesFields own={own} index={index} />}
      {!before && <StandsTable />}
      {!before && <EndsTable />}
      {!before && <TravelFacts />}
      {!before && <LinkForces />}
      {!before && <MountsAsked />}
      {spec?.parts.map((part) =>
        part.is === "link" ? (
          <LinkFields key={part.at} title={part.title} path={[...path, "layout", ...pathOf(part.at)]} />
        ) : (
          <PointFields
            key={part.at}
            label={part.title}
            path={[...path, "layout", ...pathOf(part.at)]}
            on={part.is === "axle" ? "axle" : "frame"}
          />
        ),
      )}
      {own.layout.kind === "leaf" && (
        <BegunThing
          title="Rear eye"
          at={[...path, "layout", "rear_eye"]}
          there={own.layout.rear_eye != null}
          part="rear_eye"
        >
          <PointFields label="Rear eye, right" path={[...path, "layout", "rear_eye"]} on="frame" />
        </BegunThing>
      )}
      {lateral && (
        <Group title="Kept in the middle by">
          <PlainChoice
            label="Lateral locator"
            value={lateral.kind}
            choices={LATERALS}
            choose={(kind) => void begun.part([...path, "layout", "lateral"], "lateral", kind)}
          />
          {lateral.kind === "track-bar" ? (
            <LinkFields title="Track bar" path={[...path, "layout", "lateral", "bar"]} />
          ) : (
            <>
              <PointFields label="Crank's pin" path={[...path, "layout", "lateral", "pin"]} on="axle" />
              <QuantityField label="Crank, hole to hole" path={[...path, "layout", "lateral", "crank_mm"]} />
              <PointFields label="Upper rod, frame end" path={[...path, "layout", "lateral", "upper"]} on="frame" />
              <PointFields label="Lower rod, frame end" path={[...path, "layout", "lateral", "lower"]} on="frame" />
            </>
          )}
        </Group>
      )}
      {may.design && !before && ["triangulated", "parallel", "three-link"].includes(own.layout.kind) && (
        <HoleFinder index={index} />
      )}
      {may.design && !before && !independent && linksOf(own.layout).length > 0 && (
        <WindowFinder key={own.layout.kind} index={index} links={linksOf(own.layout)} />
      )}
      {may.design && !before && (own.layout.kind === "double-wishbone" || own.layout.kind === "strut") && (
        <BoughtArm key={`${own.layout.kind}-${index}`} index={index} both={own.layout.kind === "double-wishbone"} />
      )}
      <SpringFields own={own} path={path} independent={independent} />
      {may.design && !before && own.springs?.kind === "coilover" && <CoilFinder index={index} />}
      {!before && <HoseFields hoses={own.hoses ?? []} path={[...path, "hoses"]} />}
      <Group title="The axle itself">
        <Pair>
          <QuantityField label="Hubs above datum" path={[...path, "hub_z_mm"]} optional />
          <QuantityField label="Unsprung mass" path={[...path, "unsprung_kg"]} kind="mass" optional />
        </Pair>
        <Pair>
          <QuantityField label="Track, tyre middles" path={[...path, "track_mm"]} optional />
          <QuantityField label="Tyre, loaded radius" path={[...path, "loaded_radius_mm"]} optional />
        </Pair>
        <Pair>
          <WordsField label="Tyre, as on its wall" path={[...path, "tyre"]} empty />
          <QuantityField label="Tyre's rate" path={[...path, "tyre_n_per_mm"]} kind="rate" optional />
        </Pair>
        <WheelFields title="Planned wheels" at={[...path, "wheel"]} wheel={own.wheel} />
        <Pair>
          <QuantityField label="Share of braking" path={[...path, "brake_share"]} kind="number" />
          <QuantityField label="Pinion, nose up" path={[...path, "pinion_deg"]} kind="angle" optional />
        </Pair>
        {!independent && (
          <>
            <Pair>
              <ChoiceField label="Middle of the axle" path={[...path, "housing"]} choices={HOUSINGS} />
              <QuantityField label="Its tube begins at" path={[...path, "housing_half_mm"]} optional />
            </Pair>
            <QuantityField label="Axle tube, wall" path={[...path, "tube_wall_mm"]} kind="thickness" optional />
          </>
        )}
        <ChoiceField label="Rides at its height when" path={[...path, "rides_in"]} choices={LOAD_STATES} />
        <TickField label="This axle drives" path={[...path, "driven"]} />
        {!independent && <QuantityField label="Links may hang below the hubs by" path={[...path, "belly_mm"]} />}
        <p className="small-words row-tail">
          Left empty: hubs from the survey and what the drop stack moves the axle towards the rail, track and tyre from
          the survey. A radius counts for a tyre given here.
        </p>
      </Group>
      {may.design && (
        <Box mt="2">
          <Act
            onClick={() => {
              act({ kind: "remove", path });
              put({ suspension: 0, travelMm: 0, rollDeg: 0 });
            }}
          >
            Take this suspension out
          </Act>
        </Box>
      )}
    </>
  );
}
