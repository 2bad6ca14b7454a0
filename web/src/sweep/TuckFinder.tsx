import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { FoundTuck, Tucked } from "../api/types";
import { useMay } from "../app/session";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act, Group, PlainChoice } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength } from "../units/show";

const WAYS: Record<Tucked["way"], string> = {
  offset: "Wheels of more offset",
  arms: "Shorter arms",
  narrow: "Narrower frame",
};

/** The least that the wheels go in so that the tyres clear wings and arches through all travel and lock: three ways for one end. */
export function TuckFinder() {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const may = useMay();
  const own = useBench((s) => s.history.now.design.suspensions);
  const [chosen, choose] = useState<"front" | "rear">("front");
  const [most, setMost] = useState(80);
  const [found, setFound] = useState<FoundTuck | null>(null);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState("");
  const index = Math.max(own?.findIndex((s) => s.axle === chosen) ?? 0, 0);
  const held = own?.[index];
  if (!held) return null;
  const solve = async (same: number | null) => {
    const { design, survey } = useBench.getState().history.now;
    setFound(null);
    setTrouble("");
    setBusy(true);
    try {
      const body = { job_id: jobId, design, survey, suspension: index, most_mm: most, same_mm: same };
      setFound(await got(api.POST("/api/find/tuck", { body })));
    } catch (error) {
      setTrouble(messageOf(error));
    }
    setBusy(false);
  };
  const use = (way: Tucked) => {
    act({ kind: "set", path: ["design", "suspensions", index], value: way.suspension });
    setFound(null);
  };
  return (
    <Group title="Tuck the wheels in">
      <Text fontSize="14px" mb="1">
        The least that each wheel goes in until its tyre clears wings and arches, by wheels, arms or frame.
      </Text>
      {(own?.length ?? 0) > 1 && (
        <PlainChoice
          label="Wheels of the"
          value={held.axle}
          choices={[
            ["front", "front axle"],
            ["rear", "rear axle"],
          ]}
          choose={(value) => choose(value === "rear" ? "rear" : "front")}
        />
      )}
      <PlainQuantity label="Each wheel may go in by" value={most} take={setMost} />
      <Box mt="1">
        <Act onClick={() => void solve(null)} off={busy}>
          {busy ? "Solving" : "Solve the least tuck"}
        </Act>{" "}
        <Act onClick={() => void solve(most)} off={busy} hint="Wheels, arms and frame all by the amount above">
          Compare at that
        </Act>
      </Box>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {found && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          <Text mb="1">
            Held against {found.wings.join(", ")}. Now{" "}
            {found.now.wing_gap_mm == null ? "nowhere near" : <b>{showLength(found.now.wing_gap_mm, style)}</b>} at the
            worst of travel and lock.
          </Text>
          <Compared found={found} />
          {found.ways.map((way, i) => (
            <Box key={way.way} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
              <Text>
                <b>{WAYS[way.way]}</b>: {way.words}.
              </Text>
              {may.design && way.clears && way.tuck_mm > 0 && (
                <Act main={i === 0} onClick={() => use(way)}>
                  Take {showLength(way.tuck_mm, style)} in
                </Act>
              )}
            </Box>
          ))}
        </Box>
      )}
    </Group>
  );
}

/** Each way beside what is there now. */
function Compared({ found }: { found: FoundTuck }) {
  const style = useBench((s) => s.style);
  const columns = [found.now, ...found.ways];
  const length = (v: number | null | undefined) => (v == null ? "far" : showLength(v, style));
  const degrees = (v: number | null | undefined) => (v == null ? "not steered" : `${v.toFixed(1)}°`);
  const rows: (readonly [string, (t: Tucked, now: boolean) => string])[] = [
    ["Each wheel in", (t, now) => (now ? "" : t.clears ? length(t.tuck_mm) : `${length(t.tuck_mm)}, not enough`)],
    ["To the wing", (t) => length(t.wing_gap_mm)],
    ["Next to the tyre", (t) => `${length(t.inner_gap_mm)} ${t.inner_thing}`],
    ["Track", (t) => length(t.track_mm)],
    ["Scrub radius", (t) => (t.scrub_mm == null ? "not steered" : length(t.scrub_mm))],
    ["Camber at full bump", (t) => degrees(t.camber_deg)],
    ["Toe over the travel", (t) => (t.toe_deg == null ? "not steered" : `${t.toe_deg.toFixed(2)}°`)],
    ["Lock, inner wheel", (t) => degrees(t.lock_deg)],
  ];
  return (
    <table className="figures" aria-label="Ways to tuck">
      <thead>
        <tr>
          <th scope="col">For one tuck</th>
          {columns.map((t, i) => (
            <th key={i === 0 ? "now" : t.way} scope="col" style={{ textAlign: "end", whiteSpace: "normal" }}>
              {i === 0 ? "now" : { offset: "wheels", arms: "arms", narrow: "frame" }[t.way]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, read]) => (
          <tr key={name}>
            <th scope="row" style={{ whiteSpace: "normal" }}>
              {name}
            </th>
            {columns.map((t, i) => (
              <td key={i === 0 ? "now" : t.way} style={{ whiteSpace: "normal" }}>
                {read(t, i === 0)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
