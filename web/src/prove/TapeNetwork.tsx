import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { JobHead, Style, TapedFrame } from "../api/types";
import { useMay } from "../app/session";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { evaluateAgain, useShown } from "../evaluation/useEvaluation";
import { Group, PlainChoice } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength } from "../units/show";
import { reasonOf } from "./reason";
import { useRefreshLog } from "./useLog";

/** Points of the frame measured by lengths between them: which one is wrong, where the points are, how square it is. */
export function TapeNetwork({ job }: { job: JobHead }) {
  const taped = useShown((s) => s.result?.taped ?? null);
  const may = useMay();
  return (
    <Group title="Frame by tape">
      <Text fontSize="14px">
        Lengths between the same marks on both rails, plumbed to the floor or along the webs' outer faces: sides, both
        diagonals of every bay, and a few over two bays.
      </Text>
      {may.log && <TakeLength job={job} />}
      {taped && <Found taped={taped} />}
    </Group>
  );
}

function TakeLength({ job }: { job: JobHead }) {
  const features = useBench((s) => s.history.now.survey.features);
  const refresh = useRefreshLog(job.id);
  const choices = features.flatMap((f) =>
    (["left", "right"] as const).map((side) => [`${f.id}/${side}`, `${f.name}, ${side}`] as const),
  );
  const [start, setStart] = useState(choices[0]?.[0] ?? "");
  const [end, setEnd] = useState(choices[1]?.[0] ?? "");
  const [taken, setTaken] = useState(0);
  const [trouble, setTrouble] = useState("");
  const point = (id: string) => {
    const [feature_id = "", side] = id.split("/");
    return { feature_id, side: side === "right" ? ("right" as const) : ("left" as const) };
  };
  const take = async (value_mm: number, text: string) => {
    const body = {
      start: point(start),
      end: point(end),
      value_mm,
      text,
      instrument: "tape",
      resolution_mm: 1,
      note: "",
    };
    try {
      await api.POST("/api/jobs/{job_id}/lengths", { params: { path: { job_id: job.id } }, body });
      await refresh();
      setTrouble("");
      setTaken(taken + 1);
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  return (
    <Box display="grid" gap="2" my="2">
      <PlainChoice free label="From" value={start} choices={choices} choose={setStart} />
      <PlainChoice free label="To" value={end} choices={choices} choose={setEnd} />
      <PlainQuantity key={taken} label="Length" value={null} take={(mm, text) => void take(mm, text)} />
      {trouble && (
        <Text role="alert" color="removed" gridColumn="1 / -1" fontSize="14px">
          {trouble}
        </Text>
      )}
    </Box>
  );
}

function Found({ taped }: { taped: TapedFrame }) {
  const style = useBench((s) => s.style);
  const { network, square } = taped;
  const length = (mm: number) => showLength(mm, style);
  const worst = taped.lengths.find((row) => row.entry === taped.left_out);
  const names = (ids: readonly string[]) => ids.map((id) => taped.names[id] ?? id).join("; ");
  return (
    <Box fontSize="14px">
      <Plan taped={taped} />
      {worst && (
        <Text color="removed" fontWeight="600">
          {worst.start_name} to {worst.end_name} (entry {worst.entry}) is about{" "}
          {fine(Math.abs(worst.blunder_mm ?? worst.off_mm), style)}{" "}
          {(worst.blunder_mm ?? 0) > 0 ? "too long" : "too short"}: tape it again. The points below leave it out.
        </Text>
      )}
      {taped.lengths.filter((row) => row.suspect && row !== worst).length > 0 && (
        <Text>It cannot be told from the other marked lengths.</Text>
      )}
      {network.loose.length > 0 && <Text>Not held by lengths: {names(network.loose)}.</Text>}
      {network.redundancy < 1 && <Text>No length controls another yet: an error would not show.</Text>}
      {network.redundancy > 0 && (
        <Text>
          {network.redundancy} lengths more than the points need
          {network.uncontrolled.length > 0 && `; ${network.uncontrolled.length} in which an error would not show`}.
        </Text>
      )}
      {taped.helps && <Text>The length that would help most: {taped.helps}.</Text>}
      {square && (
        <Text>
          Diagonals {length(square.left_to_right_mm)} and {length(square.right_to_left_mm)}:{" "}
          {fine(Math.abs(square.off_mm), style)} apart, {Math.abs(square.lozenge_deg).toFixed(2)} deg out of square.
        </Text>
      )}
      <Box
        as="table"
        width="100%"
        fontVariantNumeric="tabular-nums"
        mt="1"
        css={{ "& td, & th": { verticalAlign: "top", paddingInlineEnd: "8px", textAlign: "left", fontWeight: 400 } }}
      >
        <Box as="thead" color="faint">
          <tr>
            <th>length, worst first</th>
            <th>measured</th>
            <th>off by</th>
          </tr>
        </Box>
        <tbody>
          {[...taped.lengths]
            .sort((a, b) => Math.abs(b.off_mm) - Math.abs(a.off_mm))
            .map((row) => (
              <tr key={row.entry} style={{ color: row.suspect ? paint("removed") : undefined }}>
                <td>
                  {row.start_name} to {row.end_name}
                </td>
                <td>{length(row.measured_mm)}</td>
                <td>{fine(Math.abs(row.off_mm), style)}</td>
              </tr>
            ))}
        </tbody>
      </Box>
    </Box>
  );
}

/** Deviations are finer than a tape's fractions. */
const fine = (mm: number, style: Style) => (style === "mm" ? `${mm.toFixed(1)} mm` : `${(mm / 25.4).toFixed(2)}"`);
const SIZE = { w: 270, h: 120, pad: 14 };
/** Ellipses of the points' standard errors are drawn this many times as large as the frame. */
const GROWN = 40;

/** The taped points in plan, front to the left, with their error ellipses; the wrong length stands out. */
function Plan({ taped }: { taped: TapedFrame }) {
  const { points } = taped.network;
  const xs = points.map((p) => p.x_mm);
  const ys = points.map((p) => p.y_mm);
  const [left, low] = [Math.min(...xs), Math.min(...ys)];
  const k = Math.min(
    (SIZE.w - 2 * SIZE.pad) / Math.max(Math.max(...xs) - left, 1),
    (SIZE.h - 2 * SIZE.pad) / Math.max(Math.max(...ys) - low, 1),
  );
  const at = (id: string) => {
    const p = points.find((q) => q.id === id);
    return p ? { x: SIZE.pad + (p.x_mm - left) * k, y: SIZE.pad + (p.y_mm - low) * k } : null;
  };
  return (
    <svg
      viewBox={`0 0 ${SIZE.w} ${SIZE.h}`}
      width="100%"
      role="img"
      aria-label="Taped points in plan, front to the left"
    >
      {taped.lengths.map((row) => {
        const [a, b] = [at(row.start), at(row.end)];
        if (!a || !b) return null;
        const wrong = row.entry === taped.left_out;
        return (
          <line
            key={row.entry}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            stroke={paint(wrong ? "touch" : "rule")}
            strokeWidth={wrong ? 3 : 1}
            strokeDasharray={wrong ? "7 4" : undefined}
          />
        );
      })}
      {points.map((p) => {
        const place = at(p.id);
        if (!place) return null;
        return (
          <g key={p.id} transform={`translate(${place.x} ${place.y})`}>
            <title>{taped.names[p.id]}</title>
            <ellipse
              rx={Math.max(p.major_mm * k * GROWN, 1)}
              ry={Math.max(p.minor_mm * k * GROWN, 1)}
              transform={`rotate(${p.turn_deg})`}
              fill="none"
              stroke={paint("ink")}
            />
            <circle r="2" fill={paint("ink")} />
          </g>
        );
      })}
      <text x="2" y={SIZE.h - 3} fontSize="11" fill={paint("faint")}>
        front to the left; ellipses {GROWN} times
      </text>
    </svg>
  );
}
