import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { FoundHoles, HoleChoice } from "../api/types";
import { SearchBox } from "../cut/SearchBox";
import { useSearch } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Pair } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength, showNumber } from "../units/show";
import { Offer } from "./Offer";

const SHOWN = 6;

/** Tries every hole of the four brackets and ranks them against what is wanted; the map shows the trade. */
export function HoleFinder({ index }: { index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const search = useSearch("/api/find/holes");
  const [pitch, setPitch] = useState(20);
  const [count, setCount] = useState(4);
  const [squat, setSquat] = useState(80);
  const [steer, setSteer] = useState(0);
  const found = search.answer?.holes;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    const each = Math.round(Math.min(Math.max(count, 1), 8));
    const holes = { pitch_mm: pitch, frame_upper: each, frame_lower: each, axle_upper: each, axle_lower: each };
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
          <Pair>
            <PlainQuantity label="Holes in each bracket" value={count} take={setCount} kind="number" />
            <PlainQuantity label="Hole to hole" value={pitch} take={setPitch} />
          </Pair>
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
          Anti-squat, %; rows: upper link's frame hole, columns: lower link's. Fuller bars fit the wishes better.
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
                  return (
                    <td key={low} style={{ padding: 3, border: "1px solid var(--chakra-colors-rule)", minWidth: 34 }}>
                      {score == null || squat == null ? "none" : squat.toFixed(0)}
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
