import { Box, Text } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import type { FoundHoles, HoleChoice, Holes } from "../api/types";
import { SearchBox } from "../cut/SearchBox";
import { useSearch } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Pair } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength, showNumber } from "../units/show";
import { Offer } from "./Offer";
import { useAxlePart } from "./useAxle";

const SHOWN = 6;

/** Tries every hole of the four brackets and ranks them against what is wanted; the map shows the trade. */
export function HoleFinder({ index }: { index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const search = useSearch("/api/find/holes");
  const there = useAxlePart("holes");
  const [own, setOwn] = useState<Holes | null>(null);
  const holes = own ?? there;
  const [squat, setSquat] = useState(80);
  const [steer, setSteer] = useState(0);
  const found = search.answer?.holes;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    if (!holes) return;
    const wanted = { anti_squat: squat, roll_steer: steer };
    void search.find({ job_id: jobId, design, survey, suspension: index, holes, wanted });
  };
  const use = (choice: HoleChoice) => {
    act({ kind: "set", path: ["design", "suspensions", index], value: choice.suspension });
    search.forget();
  };
  const up = (mm: number) => (mm === 0 ? "as it is" : `${showLength(Math.abs(mm), style)} ${mm > 0 ? "up" : "down"}`);
  const offered = found?.choices.findIndex((c) => c.fails.length === 0 && c.reaches) ?? -1;
  return (
    <SearchBox
      title="Which holes?"
      ask="Try every hole"
      search={search}
      find={find}
      stock={
        <>
          {holes && <HoleRows holes={holes} set={setOwn} />}
          <Pair>
            <PlainQuantity label="Anti-squat wanted, %" value={squat} take={setSquat} kind="number" />
            <PlainQuantity label="Roll steer wanted" value={steer} take={setSteer} kind="number" />
          </Pair>
        </>
      }
    >
      {found &&
        (found.choices.length === 0 ? (
          <Text>{found.reason}.</Text>
        ) : (
          <>
            <Text>{found.tried} combinations of holes tried.</Text>
            <HoleMap found={found} />
            {found.choices.slice(0, SHOWN).map((choice, i) => (
              <Box key={choice.score} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
                <Text>
                  <b>Anti-squat {choice.anti_squat.toFixed(0)} %</b>, roll steer {showNumber(choice.roll_steer, 2)},
                  pinion turns {choice.pinion_deg.toFixed(1)}°, roll centre {showLength(choice.roll_centre_mm, style)}
                </Text>
                <Text color="faint" fontSize="13px">
                  upper: frame {up(choice.frame_upper_mm)}, axle {up(choice.axle_upper_mm)}; lower: frame{" "}
                  {up(choice.frame_lower_mm)}, axle {up(choice.axle_lower_mm)}
                </Text>
                <Offer
                  main={i === offered}
                  words={i === offered ? "Use these holes" : "Use these"}
                  fails={choice.fails}
                  reaches={choice.reaches}
                  use={() => use(choice)}
                />
              </Box>
            ))}
          </>
        ))}
    </SearchBox>
  );
}

const ROWS = [
  ["frame_upper", "Upper link, frame"],
  ["frame_lower", "Lower link, frame"],
  ["axle_upper", "Upper link, axle"],
  ["axle_lower", "Lower link, axle"],
] as const;

/** The holes of each bracket besides the one in use; with none the end is held where it is. */
function HoleRows({ holes, set }: { holes: Holes; set: (holes: Holes) => void }) {
  return (
    <fieldset>
      <legend className="small-words">
        Holes of each bracket, above and below the one in use; 0 and 0 holds that end fixed. They begin as the brackets
        in the plan have them.
      </legend>
      {ROWS.map(([key, label]) => {
        const row = holes[key] ?? { above: 0, below: 0, pitch_mm: 20 };
        const put = (change: Partial<typeof row>) => set({ ...holes, [key]: { ...row, ...change } });
        const whole = (v: number) => Math.round(Math.min(Math.max(v, 0), 7));
        return (
          <Trio key={key} title={label}>
            <PlainQuantity label="above" value={row.above ?? 0} take={(v) => put({ above: whole(v) })} kind="number" />
            <PlainQuantity label="below" value={row.below ?? 0} take={(v) => put({ below: whole(v) })} kind="number" />
            <PlainQuantity label="apart" value={row.pitch_mm ?? 20} take={(v) => put({ pitch_mm: v })} />
          </Trio>
        );
      })}
    </fieldset>
  );
}

function Trio({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box role="group" aria-label={title} mb="1">
      <Text fontSize="14px">{title}</Text>
      <Box display="grid" gridTemplateColumns="1fr 1fr 1.4fr" gap="2">
        {children}
      </Box>
    </Box>
  );
}

/** Frame holes of the upper link against those of the lower one: anti-squat with the best axle holes, fuller where it fits better. */
function HoleMap({ found }: { found: FoundHoles }) {
  const style = useBench((s) => s.style);
  const known = found.score.flat().filter((v): v is number => v !== null);
  const [best, worst] = [Math.min(...known), Math.max(...known)];
  const full = (score: number) => 1 - (score - best) / Math.max(worst - best, 1e-9);
  const mark = (mm: number) => (mm === 0 ? "0" : showLength(mm, style));
  return (
    <Box overflowX="auto" my="1">
      <table aria-label="Map of the frame's holes" style={{ fontSize: 12, borderCollapse: "collapse" }}>
        <caption style={{ fontSize: 12, textAlign: "start" }}>
          Anti-squat, %, and under it the axle's holes that it is of (upper, lower); rows: upper link's frame hole,
          columns: lower link's. Fuller bars fit the wishes better.
        </caption>
        <thead>
          <tr>
            <th scope="col">up</th>
            {found.lower_mm.map((mm) => (
              <th key={mm} scope="col" style={{ padding: "0 3px" }}>
                {mark(mm)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...found.upper_mm].reverse().map((mm, i) => {
            const row = found.upper_mm.length - 1 - i;
            return (
              <tr key={mm}>
                <th scope="row" style={{ paddingInlineEnd: 4 }}>
                  {mark(mm)}
                </th>
                {found.lower_mm.map((low, j) => {
                  const [score, squat] = [found.score[row]?.[j], found.anti_squat[row]?.[j]];
                  const axle = found.axle[row]?.[j];
                  return (
                    <td key={low} style={{ padding: 3, border: "1px solid var(--chakra-colors-rule)", minWidth: 34 }}>
                      {score == null || squat == null ? "none" : squat.toFixed(0)}
                      {axle && <div style={{ fontSize: 10 }}>{axle.map(mark).join(", ")}</div>}
                      {score != null && (
                        <div
                          style={{
                            height: 5,
                            width: `${Math.round(100 * Math.max(full(score), 0.03))}%`,
                            background: "var(--chakra-colors-added)",
                          }}
                        />
                      )}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
    </Box>
  );
}
