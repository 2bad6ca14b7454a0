import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { WaysDown as Ways } from "../api/types";
import { paint } from "../app/theme";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showFigure } from "../units/figure";
import { showLength } from "../units/show";

/** How each way is drawn: told apart by its dashes as well as by its colour. */
const STROKES: Record<string, { ink: Parameters<typeof paint>[0]; dash: string }> = {
  start: { ink: "faint", dash: "" },
  springs: { ink: "removed", dash: "7 3" },
  spindle: { ink: "ink", dash: "2 3" },
  raised: { ink: "added", dash: "" },
  pivots: { ink: "touch", dash: "9 3 2 3" },
};
const SHOWN = ["camber", "toe", "roll-centre"];

/** One drop in four ways, from the front as it is planned: curves over each other, and what each keeps. */
export function WaysDown({ index }: { index: number }) {
  const { jobId, style } = usePick("jobId", "style");
  const [drop, setDrop] = useState(50);
  const [ways, setWays] = useState<Ways | null>(null);
  const [trouble, setTrouble] = useState("");
  const compare = async () => {
    const { design, survey } = useBench.getState().history.now;
    setTrouble("");
    try {
      const body = { job_id: jobId, design, survey, suspension: index, drop_mm: drop };
      setWays(await got(api.POST("/api/ways-down", { body })));
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Group title="Lower it: four ways">
      <PlainQuantity label="Lower than planned here by" value={drop} take={setDrop} />
      <Box mt="1">
        <Act onClick={() => void compare()}>Compare</Act>
      </Box>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {ways && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          <Text mb="1">{showLength(ways.drop_mm, style)} lower; 0 is each way's own ride height.</Text>
          {SHOWN.map((id) => (
            <Overlay key={id} ways={ways} id={id} />
          ))}
          <Kept ways={ways} />
        </Box>
      )}
    </Group>
  );
}

const [W, H] = [236, 84];

function Overlay({ ways, id }: { ways: Ways; id: string }) {
  const style = useBench((s) => s.style);
  const all = ways.ways.map((w) => ({ way: w.way, curve: w.curves.find((c) => c.id === id) }));
  const first = all[0]?.curve;
  if (!first) return null;
  const known = all.flatMap((w) => w.curve?.values ?? []).filter((v): v is number => v !== null);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const pad = Math.max((high - low) * 0.1, 1e-6);
  const [t0, t1] = [ways.travel_mm[0] ?? 0, ways.travel_mm.at(-1) ?? 1];
  const x = (t: number) => ((t - t0) / (t1 - t0)) * W;
  const y = (v: number) => H - 4 - ((v - low + pad) / (high - low + 2 * pad)) * (H - 8);
  const line = (values: readonly (number | null)[]) =>
    values
      .map((v, i) =>
        v === null
          ? ""
          : `${i === 0 || values[i - 1] === null ? "M" : "L"}${x(ways.travel_mm[i] ?? 0).toFixed(1)} ${y(v).toFixed(1)}`,
      )
      .join("");
  return (
    <Box mb="1">
      <Text fontSize="13px" color="faint">
        {first.name}: {showFigure(low, first.unit, style)} to {showFigure(high, first.unit, style)}
      </Text>
      <svg width={W} height={H} role="img" aria-label={`${first.name}, all ways`} style={{ display: "block" }}>
        <path d={`M${x(0)} 0V${H}`} stroke={paint("rule")} />
        {all.map(({ way, curve }) =>
          curve ? (
            <g key={way}>
              <path
                d={line(curve.values)}
                fill="none"
                stroke={paint(STROKES[way]?.ink ?? "ink")}
                strokeDasharray={STROKES[way]?.dash}
                strokeWidth={way === "start" ? 3 : 1.7}
              />
              {curve.at_ride != null && (
                <circle cx={x(0)} cy={y(curve.at_ride)} r="3" fill={paint(STROKES[way]?.ink ?? "ink")} />
              )}
            </g>
          ) : null,
        )}
      </svg>
    </Box>
  );
}

/** What each way leaves as it was, each judged for itself. */
function Kept({ ways }: { ways: Ways }) {
  const mark = (kept: boolean | null | undefined) => (kept == null ? "not known" : kept ? "kept" : "lost");
  return (
    <table className="figures" aria-label="What each way keeps">
      <thead>
        <tr>
          <th scope="col">Keeps</th>
          <th scope="col">camber</th>
          <th scope="col">toe</th>
          <th scope="col">anti-dive</th>
        </tr>
      </thead>
      <tbody>
        {ways.ways
          .filter((w) => w.way !== "start")
          .map((w) => (
            <tr key={w.way}>
              <th scope="row" title={w.trouble} style={{ whiteSpace: "normal" }}>
                <svg width="22" height="8" aria-hidden="true">
                  <path
                    d="M0 4H22"
                    stroke={paint(STROKES[w.way]?.ink ?? "ink")}
                    strokeDasharray={STROKES[w.way]?.dash}
                    strokeWidth="2"
                  />
                </svg>{" "}
                {w.name}
                {w.trouble && <span className="row-tail"> {w.trouble}</span>}
              </th>
              {[w.keeps_camber, w.keeps_toe, w.keeps_anti_dive].map((kept, i) => (
                <td key={["camber", "toe", "dive"][i]} style={{ paddingInlineStart: 8 }}>
                  {mark(kept)}
                </td>
              ))}
            </tr>
          ))}
      </tbody>
    </table>
  );
}
