import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { FoundWindow, WindowChoice } from "../api/types";
import { SearchBox } from "../cut/SearchBox";
import { useSearch } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Pair, PlainChoice } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength, showNumber } from "../units/show";
import { Offer } from "./Offer";

const SHOWN = 5;
const ENDS = [
  ["frame", "frame end"],
  ["axle", "axle end"],
] as const;

type Props = { index: number; links: readonly (readonly [string, string])[] };

/** Tries every place of one end of a link within a window, and the lengths that follow. */
export function WindowFinder({ index, links }: Props) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const search = useSearch("/api/find/window");
  const [link, setLink] = useState(links[0]?.[0] ?? "upper");
  const [end, setEnd] = useState("frame");
  const [along, setAlong] = useState(100);
  const [high, setHigh] = useState(60);
  const [step, setStep] = useState(10);
  const [least, setLeast] = useState(0);
  const [most, setMost] = useState(2000);
  const [squat, setSquat] = useState(80);
  const found = search.answer?.window;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    const window = {
      end,
      ahead_mm: along,
      behind_mm: along,
      down_mm: high,
      up_mm: high,
      step_mm: step,
      least_mm: least > 0 ? least : null,
      most_mm: most,
    };
    void search.find({ job_id: jobId, design, survey, suspension: index, link, window, wanted: { anti_squat: squat } });
  };
  const use = (choice: WindowChoice) => {
    act({ kind: "set", path: ["design", "suspensions", index], value: choice.suspension });
    search.forget();
  };
  const by = (mm: number, more: string, less: string) =>
    mm === 0 ? "" : `${showLength(Math.abs(mm), style)} ${mm > 0 ? more : less}`;
  const place = (c: WindowChoice) =>
    [by(c.back_mm, "back", "ahead"), by(c.up_mm, "up", "down")].filter(Boolean).join(", ") || "where it is";
  const offered = found?.choices.findIndex((c) => c.fails.length === 0 && c.reaches) ?? -1;
  return (
    <SearchBox
      title="Where does a link go, and how long?"
      ask="Try every place"
      search={search}
      find={find}
      stock={
        <>
          <Pair>
            <PlainChoice label="Link" value={link} choices={links} choose={setLink} />
            <PlainChoice label="Move its" value={end} choices={ENDS} choose={setEnd} />
          </Pair>
          <Pair>
            <PlainQuantity label="Fore and aft by" value={along} take={setAlong} />
            <PlainQuantity label="Up and down by" value={high} take={setHigh} />
          </Pair>
          <Pair>
            <PlainQuantity label="In steps of" value={step} take={setStep} />
            <PlainQuantity label="Anti-squat wanted here, %" value={squat} take={setSquat} kind="number" />
          </Pair>
          <Pair>
            <PlainQuantity label="Link at least" value={least} take={setLeast} />
            <PlainQuantity label="Link at most" value={most} take={setMost} />
          </Pair>
        </>
      }
    >
      {found &&
        (found.choices.length === 0 ? (
          <Text>{found.reason}.</Text>
        ) : (
          <>
            <Text>{found.tried} places tried.</Text>
            <WindowMap found={found} />
            {found.choices.slice(0, SHOWN).map((choice, i) => (
              <Box key={`${choice.back_mm}/${choice.up_mm}`} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
                <Text>
                  <b>{place(choice)}</b>: link {showLength(choice.length_mm, style)}, anti-squat{" "}
                  {choice.anti_squat.toFixed(0)} %, roll steer {showNumber(choice.roll_steer, 2)}, pinion turns{" "}
                  {choice.pinion_deg.toFixed(1)}°
                </Text>
                <Offer
                  main={i === offered}
                  words="Put it there"
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

/** The window as a picture: darker fits the wishes better, blank does not move or has not the wanted length. */
function WindowMap({ found }: { found: FoundWindow }) {
  const known = found.score.flat().filter((v): v is number => v !== null);
  const [best, worst] = [Math.min(...known), Math.max(...known)];
  const [wide, tall] = [found.back_mm.length, found.up_mm.length];
  const cell = Math.min(220 / wide, 12);
  return (
    <svg
      width={cell * wide}
      height={cell * tall}
      role="img"
      aria-label="Map of the window: darker places fit the wishes better; front to the left"
      style={{ display: "block", margin: "4px 0", border: "1px solid var(--chakra-colors-rule)" }}
    >
      {found.score.map((row, j) =>
        row.map((score, i) =>
          score === null ? null : (
            <rect
              key={`${found.back_mm[i]}/${found.up_mm[j]}`}
              x={i * cell}
              y={(tall - 1 - j) * cell}
              width={cell}
              height={cell}
              fill="var(--chakra-colors-added)"
              opacity={0.06 + 0.94 * (1 - (score - best) / Math.max(worst - best, 1e-9)) ** 2}
            />
          ),
        ),
      )}
    </svg>
  );
}
