import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { FoundSteer, SteerChoice } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength } from "../units/show";

const CURES: Record<SteerChoice["cure"], string> = {
  "rack-height": "Rack",
  "rack-place": "Rack's inner joints",
  "outer-spacer": "Spacer at the outer joint",
  "arm-height": "Pitman arm's end",
  "axle-height": "Drag link's axle end",
  "box-height": "Whole box, by its bracket",
  "box-lean": "Box's shaft",
};

/** Tries what can be moved and ranks it by the steer that is left over the whole travel. */
export function BumpFinder({ index }: { index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const [reach, setReach] = useState(60);
  const [found, setFound] = useState<FoundSteer | null>(null);
  const [trouble, setTrouble] = useState("");
  const find = async () => {
    const { design, survey } = useBench.getState().history.now;
    setFound(null);
    setTrouble("");
    try {
      const body = { job_id: jobId, design, survey, suspension: index, wish: { reach_mm: reach } };
      setFound(await got(api.POST("/api/find/bump-steer", { body })));
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const use = (choice: SteerChoice) => {
    act({ kind: "set", path: ["design", "suspensions", index], value: choice.suspension });
    setFound(null);
  };
  const words = (c: SteerChoice) => {
    const way = (mm: number, up: string, down: string) => `${showLength(Math.abs(mm), style)} ${mm > 0 ? up : down}`;
    const parts = [];
    if (c.lean_deg) parts.push(`${Math.abs(c.lean_deg).toFixed(1)}° ${c.lean_deg > 0 ? "rearward" : "forward"}`);
    if (c.up_mm) parts.push(way(c.up_mm, "higher", "lower"));
    if (c.out_mm) parts.push(way(c.out_mm, "further out", "further in"));
    return parts.join(", ") || "where it is";
  };
  return (
    <Group title="Cure bump steer">
      <PlainQuantity label="A point may move by" value={reach} take={setReach} />
      <Box mt="1">
        <Act main onClick={() => void find()}>
          Try every cure
        </Act>
      </Box>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {found && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          <Text>
            Now <b>{found.span_deg.toFixed(2)}°</b> over the whole travel, {found.slope_deg_per_inch.toFixed(3)} °/in
            (steer of the axle, or toe of both wheels) at ride height.
          </Text>
          {found.choices.length === 0 && <Text>Nothing here can be moved so that the rods still reach.</Text>}
          {found.choices.map((choice, i) => (
            <Box key={choice.cure} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
              <Text>
                {CURES[choice.cure]} <b>{words(choice)}</b>: {choice.span_deg.toFixed(2)}° is left,{" "}
                {choice.slope_deg_per_inch.toFixed(3)} °/in
                {choice.at_the_end ? "; further would be better still" : ""}
              </Text>
              <Act main={i === 0} onClick={() => use(choice)}>
                Use it
              </Act>
            </Box>
          ))}
        </Box>
      )}
      {found?.off_parallel_deg != null && (
        <Text fontSize="14px" mt="1">
          The drag link lies {Math.abs(found.off_parallel_deg).toFixed(1)}° off square to the path of its joint on the
          axle, at ride height.
        </Text>
      )}
      {found && found.parallel.length > 0 && (
        <Box fontSize="14px" p="2" bg="sheet" mt="1" aria-label="Laid parallel" role="group">
          <Text>Laid square to that path, as a rod parallel to the track bar is, no bump steers at ride height:</Text>
          {found.parallel.map((choice) => (
            <Box key={choice.cure} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
              <Text>
                {CURES[choice.cure]} <b>{words(choice)}</b>: {choice.span_deg.toFixed(2)}° over the whole travel
              </Text>
              <Act onClick={() => use(choice)}>Lay it so</Act>
            </Box>
          ))}
        </Box>
      )}
    </Group>
  );
}
