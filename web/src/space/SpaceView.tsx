import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { api, got } from "../api/client";
import type { FrameSolids } from "../api/types";
import { seenDraft, useBench, usePick } from "../draft/store";
import { useSize } from "../drawing/useSize";
import { useShown } from "../evaluation/useEvaluation";
import { Act } from "../fields/controls";
import { useSweep } from "../sweep/useSweep";
import { type EyeName, World } from "./world";

const EYES: readonly (readonly [EyeName, string])[] = [
  ["corner", "Corner"],
  ["left", "Left"],
  ["front", "Front"],
  ["above", "Above"],
  ["behind", "Behind"],
];
const REST_MS = 250;

/** Frame, cuts, plates, axles and tyres in space; the travel bar, roll and steer move them. */
export default function SpaceView() {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [world, setWorld] = useState<World | null>(null);
  const [without, setWithout] = useState(false);
  const { width, height } = useSize(frame);
  useEffect(() => {
    if (!canvas.current) return;
    try {
      const made = new World(canvas.current);
      setWorld(made);
      return () => made.end();
    } catch {
      setWithout(true);
    }
  }, []);
  useEffect(() => {
    if (width > 0) world?.size(width, height);
  }, [world, width, height]);
  useScene(world);
  return (
    <Box ref={frame} position="relative" height="100%" bg="sheet" overflow="hidden" minH="0">
      <canvas
        ref={canvas}
        tabIndex={0}
        aria-label="Frame, suspension and tyres in space: drag to turn, wheel to come closer"
        style={{ display: without ? "none" : "block", width: "100%", height: "100%", touchAction: "none" }}
      />
      {without ? (
        <Text p="4">This browser draws nothing in space. The three views of the Travel stage show the same.</Text>
      ) : (
        <Flex position="absolute" top="2" left="2" gap="1" wrap="wrap" role="group" aria-label="Look from">
          {EYES.map(([eye, name]) => (
            <Act key={eye} onClick={() => world?.look(eye)}>
              {name}
            </Act>
          ))}
        </Flex>
      )}
    </Box>
  );
}

/** What the scene shows, kept up with the bench. */
function useScene(world: World | null): void {
  const { travelMm, rollDeg, steer } = usePick("travelMm", "rollDeg", "steer");
  const obstacles = useBench((s) => seenDraft(s).design.obstacles);
  const travel = useShown((s) => s.result?.travel);
  const solids = useSolids();
  const looked = useRef(false);
  useEffect(() => {
    if (world && solids) world.showFrame(solids);
  }, [world, solids]);
  useEffect(() => {
    if (!world || !travel) return;
    world.showAxles(travel);
    const { travelMm: t, rollDeg: r, steer: s } = useBench.getState();
    world.pose({ travelMm: t, rollDeg: r, steer: s });
  }, [world, travel]);
  useEffect(() => world?.pose({ travelMm, rollDeg, steer }), [world, travelMm, rollDeg, steer]);
  const gone = solids?.things;
  useEffect(() => {
    // what goes along with the frame stands where the core has moved it
    const placed = (obstacles ?? []).map((o) => (o.rides !== "placed" ? (gone?.find((t) => t.id === o.id) ?? o) : o));
    world?.showThings(placed);
  }, [world, obstacles, gone]);
  const at = useSweep((s) => s.pairs.find((p) => p.id === s.chosen)?.at);
  useEffect(() => world?.point(at?.length ? at : null), [world, at]);
  useEffect(() => {
    if (!world || !solids || !travel || looked.current) return;
    looked.current = true;
    world.look("corner");
  }, [world, solids, travel]);
}

/** Rails as the core cuts them, asked for when the design has rested. */
function useSolids(): FrameSolids | null {
  const jobId = useBench((s) => s.jobId);
  const survey = useBench((s) => s.history.now.survey);
  const operations = useBench((s) => s.history.now.design.operations);
  const obstacles = useBench((s) => s.history.now.design.obstacles);
  const [solids, setSolids] = useState<FrameSolids | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only cuts and rails change the solids
  useEffect(() => {
    if (!jobId) return;
    let gone = false;
    const timer = setTimeout(() => {
      const { design } = useBench.getState().history.now;
      got(api.POST("/api/solids", { body: { job_id: jobId, design, survey } }))
        .then((found) => !gone && setSolids(found))
        .catch(() => undefined);
    }, REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [jobId, survey, operations, obstacles]);
  return solids;
}
