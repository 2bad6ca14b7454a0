import { Box, Text } from "@chakra-ui/react";
import type { Choice, Found, JobHead, Notch } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { showLength, showThickness } from "../units/show";
import { SearchBox } from "./SearchBox";
import { StockFields } from "./StockFields";
import { useSearch } from "./useSearch";

/** Finds the lightest plates from the shop's stock that bring every capacity back to stock. */
export function Finder({ job, notch, index }: { job: JobHead; notch: Notch; index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const search = useSearch("/api/find/reinforcement");
  const found = search.answer?.found;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    void search.find({ job_id: jobId, design, survey, notch_id: notch.id });
  };
  const use = (choice: Pick<Choice, "notch" | "boxing">) => {
    const { operations } = useBench.getState().history.now.design;
    const added = choice.boxing ? [choice.boxing] : [];
    const value = [...operations.map((op, i) => (i === index ? choice.notch : op)), ...added];
    act({ kind: "set", path: ["design", "operations"], value });
    search.forget();
  };
  const thick = (mm: number) => showThickness(mm, style);
  return (
    <SearchBox
      title="Find plates"
      ask="Find the lightest set"
      search={search}
      find={find}
      stock={<StockFields job={job} />}
    >
      {found &&
        (found.best && found.notch ? (
          <>
            <Text>Cut {showLength(found.notch.depth_mm, style)} deep for the same clear opening:</Text>
            <Text fontWeight="600">{wordsOf(found.best, thick)}</Text>
            <Text>
              {found.best.mass_kg.toFixed(2)} kg a side; least capacity {found.least_ratio.toFixed(2)} of stock in the{" "}
              {found.governs}. {found.tried} sets tried.
            </Text>
            <Act main onClick={() => found.notch && use({ notch: found.notch, boxing: found.boxing ?? null })}>
              Use this set
            </Act>
            {found.alternatives.length > 0 && <Text mt="2">Heavier, of other plates:</Text>}
            {found.alternatives.map((choice) => (
              <Box key={wordsOf(choice.set, thick)} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
                <Text>
                  {wordsOf(choice.set, thick)}: <b>{choice.set.mass_kg.toFixed(2)} kg</b>, least{" "}
                  {choice.least_ratio.toFixed(2)} in the {choice.governs}
                </Text>
                <Act onClick={() => use(choice)}>Use this one</Act>
              </Box>
            ))}
          </>
        ) : (
          <Text>{found.reason}</Text>
        ))}
    </SearchBox>
  );
}

function wordsOf(best: NonNullable<Found["best"]>, length: (mm: number) => string): string {
  const rows: [string, number][] = [
    ["liner", best.liner_mm],
    ["outer plate", best.outer_mm],
    ["inner plate", best.inner_mm],
    ["boxing plate", best.boxing_mm],
    [`cap ${length(best.cap_height_mm)} high`, best.cap_mm],
  ];
  return rows
    .filter(([, mm]) => mm > 0)
    .map(([name, mm]) => `${name} ${length(mm)}`)
    .join(", ");
}
