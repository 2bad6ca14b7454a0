import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { ArmChange, ArmLaidOver } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act, Group, Pair, PlainChoice } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength } from "../units/show";

type Lengths = ArmLaidOver["original"];
type Arm = "upper-arm" | "lower-arm";

/** An arm bought for another frame, laid over the pick-ups that are here: which single change restores the ball joint. */
export function BoughtArm({ index, both }: { index: number; both: boolean }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const [arm, setArm] = useState<Arm>("lower-arm");
  const [own, setOwn] = useState<Lengths | null>(null);
  const [found, setFound] = useState<ArmLaidOver | null>(null);
  const [trouble, setTrouble] = useState("");
  const ask = async (which: Arm, bought: Lengths | null) => {
    const { design, survey } = useBench.getState().history.now;
    setTrouble("");
    try {
      const body = { job_id: jobId, design, survey, suspension: index, arm: which, bought };
      const answer = await got(api.POST("/api/bought-arm", { body }));
      setFound(answer);
      if (!bought) setOwn(answer.original);
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const choose = (value: string) => {
    const which: Arm = value === "upper-arm" ? "upper-arm" : "lower-arm";
    setArm(which);
    void ask(which, null);
  };
  const use = (change: ArmChange) => {
    act({ kind: "set", path: ["design", "suspensions", index], value: change.suspension });
    setFound(null);
    setOwn(null);
  };
  const set = (key: keyof Lengths) => (mm: number) => own && setOwn({ ...own, [key]: mm });
  return (
    <Group title="A bought arm over these pick-ups">
      {both && (
        <PlainChoice
          label="Arm"
          value={arm}
          choices={[
            ["lower-arm", "lower arm"],
            ["upper-arm", "upper arm"],
          ]}
          choose={choose}
        />
      )}
      {own ? (
        <>
          <Text fontSize="14px" my="1">
            Here now: pivots {showLength(found?.original.pivots_apart_mm ?? 0, style)} apart, ball joint{" "}
            {showLength(found?.original.ball_behind_mm ?? 0, style)} behind the front one and{" "}
            {showLength(found?.original.ball_out_mm ?? 0, style)} out. Type the bought one's:
          </Text>
          <PlainQuantity label="Its pivots apart" value={own.pivots_apart_mm} take={set("pivots_apart_mm")} />
          <Pair>
            <PlainQuantity
              label="Ball behind the front pivot"
              value={own.ball_behind_mm}
              take={set("ball_behind_mm")}
            />
            <PlainQuantity label="Ball out from the hinge" value={own.ball_out_mm} take={set("ball_out_mm")} />
          </Pair>
          <Act main onClick={() => void ask(arm, own)}>
            Lay it over
          </Act>
        </>
      ) : (
        <Box mt="1">
          <Act onClick={() => void ask(arm, null)}>Measure the arm that is here</Act>
        </Box>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {found && found.changes.length > 0 && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          {found.changes.map((change) => (
            <Change key={change.change} change={change} use={use} />
          ))}
        </Box>
      )}
    </Group>
  );
}

function Change({ change, use }: { change: ArmChange; use: (change: ArmChange) => void }) {
  const style = useBench((s) => s.style);
  const way = (mm: number, more: string, less: string) =>
    Math.abs(mm) < 0.05 ? "" : `${showLength(Math.abs(mm), style)} ${mm > 0 ? more : less}`;
  const moved = (name: string, rearward: number, outward: number) => {
    const parts = [way(rearward, "rearward", "forward"), way(outward, "outward", "inward")].filter(Boolean);
    return parts.length ? `${name} ${parts.join(" and ")}` : "";
  };
  const tubes = change.change === "pivot-tubes";
  const moves = [
    moved(tubes ? "front tube" : "front mount", change.front_rearward_mm, change.front_outward_mm),
    moved(tubes ? "rear tube" : "rear mount", change.rear_rearward_mm, change.rear_outward_mm),
  ].filter(Boolean);
  const lost = [
    change.keeps_camber === false && "camber",
    change.keeps_toe === false && "toe",
    change.keeps_anti_dive === false && "anti-dive",
  ].filter(Boolean);
  const known = change.keeps_camber != null;
  return (
    <Box mb="1" pb="1" borderBottomWidth="1px" borderColor="rule">
      <Text>
        <b>{change.name}</b>:{" "}
        {change.restores
          ? moves.length
            ? `${moves.join("; ")}. The ball joint is where it was.`
            : "the ball joint is where it was."
          : `the ball joint stays ${showLength(change.ball_off_mm, style)} off.`}{" "}
        {change.restores &&
          known &&
          (lost.length ? `Round ride height it moves ${lost.join(", ")}.` : "All curves stay.")}
      </Text>
      <Text fontSize="13px" color="faint">
        {change.words}
      </Text>
      {change.restores && change.suspension && <Act onClick={() => use(change)}>Put the mounts there</Act>}
    </Box>
  );
}
