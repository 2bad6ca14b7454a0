import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { CutChoice, CutFromSweep, SweptPair } from "../api/types";
import { useMay } from "../app/session";
import { paint } from "../app/theme";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { VerdictMark } from "../margins/VerdictMark";
import { showFigure } from "../units/figure";
import { showLength } from "../units/show";

/** From what is swept at a rail, the cut: a hole or a notch, with what it leaves, placed by one press. */
export function CutChoices({ pair }: { pair: SweptPair }) {
  const { jobId, act, put, style } = usePick("jobId", "act", "put", "style");
  const may = useMay();
  const [found, setFound] = useState<CutFromSweep | null>(null);
  const [trouble, setTrouble] = useState("");
  if (!may.design) return null;
  const side = pair.other.startsWith("left") ? "left" : "right";
  const find = async () => {
    const { design, survey } = useBench.getState().history.now;
    setTrouble("");
    try {
      const axle = pair.axle === "front" ? "front" : "rear";
      // the boot goes with its rod
      const moving = pair.moving.replace("boot", "toe link");
      const body = { job_id: jobId, design, survey, axle, moving, side } as const;
      setFound(await got(api.POST("/api/sweep/cut", { body })));
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const use = (choice: CutChoice) => {
    const operations = useBench.getState().history.now.design.operations ?? [];
    const index = operations.findIndex((op) => op.id === choice.operation.id);
    if (index >= 0) act({ kind: "operation", index, value: choice.operation });
    else act({ kind: "insert", path: ["design", "operations"], value: choice.operation });
    put({ side, selected: choice.operation.id, stationMm: choice.x_mm });
    setFound(null);
  };
  return (
    <Box mt="1">
      <Act onClick={() => void find()}>The cut that it needs</Act>
      <Text role="alert" color="removed">
        {trouble}
      </Text>
      {found && (
        <Box role="status" mt="1" p="2" bg="sheet">
          <HullSketch found={found} />
          <Text fontSize="13px" color="faint">
            Hatched: what {found.moving.join(" and ")} sweep between the rail's faces; dashed: with{" "}
            {showLength(found.clearance_mm, style)} all round.
          </Text>
          {found.choices.map((choice) => (
            <Box key={choice.kind} mt="1" pt="1" borderTopWidth="1px" borderColor="rule">
              <Text>
                <b>{choice.words}</b>: leaves {showLength(Math.max(choice.left_mm, 0), style)} of the web, takes{" "}
                {showFigure(choice.area_mm2, "mm²", style)}.
              </Text>
              {choice.reason && <Text color="removed">It cannot be placed: {choice.reason}.</Text>}
              {choice.verdicts.map((v) => (
                <Text key={v.title} display="flex" gap="2" alignItems="center" fontSize="13px">
                  <VerdictMark verdict={v.verdict as "fails"} size={12} />
                  {v.title}: {v.value == null ? "not computed" : showFigure(v.value, v.unit, style)}
                </Text>
              ))}
              {!choice.reason && (
                <Act onClick={() => use(choice)}>
                  Place it in {found.both ? "both rails" : `the ${found.side} rail`}
                </Act>
              )}
            </Box>
          ))}
          {found.choices.length === 0 && (
            <Text>No saw and no pipe is wide enough: give it more room, or less motion.</Text>
          )}
        </Box>
      )}
    </Box>
  );
}

const WIDE = 220;

/** The swept outline on the rail's side plane, with the rail's edges and the choices round it. */
function HullSketch({ found }: { found: CutFromSweep }) {
  const points = found.outline;
  const xs = points.map((p) => p[0] ?? 0);
  const [x0, x1] = [Math.min(...xs) - 25, Math.max(...xs) + 25];
  const [z0, z1] = [found.underside_mm - 20, found.top_mm + 20];
  const scale = WIDE / (x1 - x0);
  const at = (x: number, z: number) => `${((x - x0) * scale).toFixed(1)} ${((z1 - z) * scale).toFixed(1)}`;
  const ring = (list: number[][]) => `M${list.map((p) => at(p[0] ?? 0, p[1] ?? 0)).join("L")}Z`;
  const corner = (z: number) => ((z1 - z) * scale).toFixed(1);
  return (
    <svg
      width={WIDE}
      height={(z1 - z0) * scale}
      role="img"
      aria-label="Swept outline on the rail"
      style={{ display: "block" }}
    >
      <defs>
        <pattern id="swept" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke={paint("touch")} strokeWidth="2" />
        </pattern>
      </defs>
      <rect
        x="0"
        y={corner(found.top_mm)}
        width={WIDE}
        height={(found.top_mm - found.underside_mm) * scale}
        fill={paint("bench")}
        stroke={paint("rule")}
      />
      <path d={ring(found.hull)} fill="url(#swept)" stroke={paint("touch")} />
      <path d={ring(found.outline)} fill="none" stroke={paint("ink")} strokeDasharray="5 3" />
      {found.choices
        .filter((c) => c.kind !== "notch")
        .map((c) => {
          const r = (c.wide_mm / 2) * scale;
          const middle = (z1 - found.underside_mm - c.height_mm) * scale;
          const half = (c.high_mm / 2) * scale;
          return (
            <rect
              key={c.kind}
              x={(c.x_mm - x0) * scale - r}
              y={middle - half}
              width={2 * r}
              height={2 * half}
              rx={r}
              fill="none"
              stroke={paint("removed")}
              strokeWidth={c.kind === "oblong" ? 2 : 1}
            >
              <title>{c.words}</title>
            </rect>
          );
        })}
    </svg>
  );
}
