import { Box, Text } from "@chakra-ui/react";
import type { JobHead, Operation, PieceChoice } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { showLength, showThickness } from "../units/show";
import { SearchBox } from "./SearchBox";
import { StockFields } from "./StockFields";
import { useSearch } from "./useSearch";

/** Finds the lightest piece, plates and gussets from the shop's stock that pass every check of a cut through the rail. */
export function PieceFinder({ job, op, index }: { job: JobHead; op: Operation; index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const search = useSearch("/api/find/piece");
  const found = search.answer?.piece;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    void search.find({ job_id: jobId, design, survey, operation_id: op.id });
  };
  const use = (choice: PieceChoice) => {
    act({ kind: "set", path: ["design", "operations", index], value: choice.operation });
    search.forget();
  };
  return (
    <SearchBox
      title="Find the piece"
      ask="Find the lightest piece"
      search={search}
      find={find}
      stock={<StockFields job={job} caps={false} />}
    >
      {found &&
        (found.choices.length === 0 ? (
          <Text>{found.reason}.</Text>
        ) : (
          <>
            <Text>{found.tried} sets tried; each here passes every check of the piece, lightest first.</Text>
            {found.choices.map((choice, i) => (
              <Box key={choice.mass_kg} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
                <Text>
                  <b>{choice.mass_kg.toFixed(2)} kg a side</b>:{" "}
                  {wordsOf(
                    choice,
                    (mm) => showThickness(mm, style),
                    (mm) => showLength(mm, style),
                  )}
                </Text>
                <Text>
                  Nearest to failing by {(100 * choice.least_margin).toFixed(0)} %: {choice.governs}.
                </Text>
                <Act main={i === 0} onClick={() => use(choice)}>
                  {i === 0 ? "Use this piece" : "Use this one"}
                </Act>
              </Box>
            ))}
          </>
        ))}
    </SearchBox>
  );
}

function wordsOf(c: PieceChoice, thick: (mm: number) => string, long: (mm: number) => string): string {
  const deep = c.depth_mm > 0 ? `, ${long(c.depth_mm)} along the rail` : "";
  const rows: [string, boolean][] = [
    [`overlap ${long(c.overlap_mm)}`, c.overlap_mm > 0],
    [`wall ${thick(c.wall_mm)}${deep}`, c.overlap_mm === 0],
    [`outer plate ${thick(c.outer_mm)}`, c.outer_mm > 0],
    [`inner plate ${thick(c.inner_mm)}`, c.inner_mm > 0],
    [`gussets ${thick(c.gusset_mm)}, leg ${long(c.gusset_leg_mm)}`, c.gusset_mm > 0],
  ];
  return rows
    .filter(([, there]) => there)
    .map(([words]) => words)
    .join("; ");
}
