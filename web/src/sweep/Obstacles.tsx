import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Obstacle } from "../api/types";
import { useMay } from "../app/session";
import { freshId } from "../draft/document";
import { seenDraft, useBench, usePick } from "../draft/store";
import { Act, ChoiceField, Group, Pair, TickField, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PointFields } from "../travel/LinkFields";
import { useCarriers } from "../travel/RidesFields";

const KINDS = [
  ["engine", "engine or gearbox"],
  ["sump", "sump"],
  ["firewall", "firewall"],
  ["tank", "tank"],
  ["exhaust", "exhaust"],
  ["floor", "floor"],
  ["hood", "hood line"],
  ["wing", "wing or arch"],
  ["line", "hose or line"],
  ["column", "steering column"],
  ["steering-box", "steering box"],
  ["anti-roll-bar", "anti-roll bar"],
  ["other", "something else"],
] as const;

const NONE: Obstacle[] = [];
const p = (x: number, y: number, z: number) => ({ x_mm: x, y_mm: y, z_mm: z });

/** What stands around the axles: boxes and round bars on the frame. */
export function Obstacles() {
  const all = useBench((s) => seenDraft(s).design.obstacles) ?? NONE;
  const { act } = usePick("act");
  const may = useMay();
  const [open, setOpen] = useState<string | null>(null);
  const add = (shape: "box" | "bar") => {
    const id = freshId(
      "thing",
      all.map((o) => o.id),
    );
    const body: Obstacle["body"] =
      shape === "box"
        ? { shape, middle: p(0, 0, 200), long_mm: 500, wide_mm: 400, high_mm: 300, nose_up_deg: 0, yaw_deg: 0 }
        : { shape, a: p(-300, 250, 100), b: p(900, 250, 60), diameter_mm: 55 };
    const value: Obstacle = {
      id,
      name: shape === "box" ? "Engine" : "Exhaust pipe",
      kind: shape === "box" ? "engine" : "exhaust",
      body,
      mirrored: false,
      rides: "placed",
    };
    act({ kind: "insert", path: ["design", "obstacles"], value });
    setOpen(id);
  };
  return (
    <Group field="/design/obstacles" title="What stands around">
      {all.length === 0 && (
        <Text fontSize="14px" mb="1">
          Nothing yet. Engine, sump, tank, exhaust, floor, firewall and hood line go in as boxes and bars.
        </Text>
      )}
      {all.map((obstacle, index) => (
        <Box key={obstacle.id} className="row">
          <button
            type="button"
            className="row-head"
            aria-expanded={open === obstacle.id}
            onClick={() => setOpen(open === obstacle.id ? null : obstacle.id)}
          >
            <span className="row-words">
              <span className="row-title">{obstacle.name}</span>
            </span>
          </button>
          {open === obstacle.id && <Fields obstacle={obstacle} index={index} />}
        </Box>
      ))}
      {may.design && (
        <Pair>
          <Act onClick={() => add("box")}>Add a box</Act>
          <Act onClick={() => add("bar")}>Add a bar</Act>
        </Pair>
      )}
    </Group>
  );
}

function Fields({ obstacle, index }: { obstacle: Obstacle; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const carriers = useCarriers();
  const path = ["design", "obstacles", index] as const;
  const { body } = obstacle;
  return (
    <Box pb="2">
      <WordsField label="Name of the thing" path={[...path, "name"]} />
      <ChoiceField label="What it is" path={[...path, "kind"]} choices={KINDS} />
      {body.shape === "box" ? (
        <>
          <PointFields label="Middle" path={[...path, "body", "middle"]} on="frame" />
          <Pair>
            <QuantityField label="Long" path={[...path, "body", "long_mm"]} />
            <QuantityField label="Wide" path={[...path, "body", "wide_mm"]} />
          </Pair>
          <Pair>
            <QuantityField label="High" path={[...path, "body", "high_mm"]} />
            <QuantityField label="Front end up by" path={[...path, "body", "nose_up_deg"]} kind="angle" />
          </Pair>
        </>
      ) : (
        <>
          <PointFields label="One end" path={[...path, "body", "a"]} on="frame" />
          <PointFields label="Other end" path={[...path, "body", "b"]} on="frame" />
          <QuantityField label="Diameter" path={[...path, "body", "diameter_mm"]} />
        </>
      )}
      <ChoiceField label="Measured before the cut, goes with" path={[...path, "rides"]} choices={carriers} />
      <TickField label="Its image on the other side too" path={[...path, "mirrored"]} />
      {may.design && <Act onClick={() => act({ kind: "remove", path })}>Take it out</Act>}
    </Box>
  );
}
