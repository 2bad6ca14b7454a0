import { Box, Text } from "@chakra-ui/react";
import type { TakenAlong } from "../api/types";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { showFigure } from "../units/figure";
import { showLength } from "../units/show";

/** What moves with the rails, so that nobody finds it after the cut. */
export function TakenAlongList() {
  const rows = useShown((s) => s.result?.taken_along ?? NONE);
  const style = useBench((s) => s.style);
  if (rows.length === 0) return null;
  const length = (mm: number) => showLength(Math.abs(mm), style);
  const moves = (row: TakenAlong) =>
    [
      row.up_mm && `${row.up_mm > 0 ? "up" : "down"} ${length(row.up_mm)}`,
      row.back_mm && `${row.back_mm > 0 ? "rearward" : "forward"} ${length(row.back_mm)}`,
      row.narrower_mm && `${row.narrower_mm > 0 ? "narrower" : "wider"} by ${length(row.narrower_mm)}`,
    ]
      .filter(Boolean)
      .join(", ");
  const groups = new Map<string, TakenAlong[]>();
  for (const row of rows) {
    const key = `${moves(row)}: ${row.words}`;
    groups.set(key, [...(groups.get(key) ?? []), row]);
  }
  return (
    <Group title="Moves with the rails">
      {[...groups].map(([key, own]) => (
        <p key={key} className="small-words">
          <b>{own[0] && moves(own[0])}</b>: {own.map((row) => row.name).join(", ")}.{" "}
          <span className="row-tail">{own[0]?.words}</span>
        </p>
      ))}
    </Group>
  );
}

/** The frame while a cut is open: what is off until it is welded. */
export function InterimList() {
  const rows = useShown((s) => s.result?.interim ?? NONE);
  const style = useBench((s) => s.style);
  if (rows.length === 0) return null;
  const kept = rows.filter((row, i) => rows.findIndex((r) => r.operation === row.operation) === i);
  return (
    <Group title="While it is cut open">
      {kept.map((row) => {
        const other = rows.find((r) => r.operation === row.operation && r.side !== row.side);
        const use = Math.max(row.use ?? 0, other?.use ?? 0);
        return (
          <Box key={row.operation} mb="2">
            <Text fontSize="14px" fontWeight="600">
              {row.name}
              {row.in_two
                ? ": the rail is in two"
                : row.use === null
                  ? ""
                  : `: use ${(use * 100).toFixed(0)} % standing`}
            </Text>
            <Text fontSize="13px">{row.words}</Text>
            {row.tacks_needed_n !== null && (
              <Text fontSize="13px" color="faint">
                Eight tacks of {showLength(20, style)} are trusted with {showFigure(row.tacks_n, "N", style)}; three
                times static asks for {showFigure(row.tacks_needed_n, "N", style)}. Tacks are never the only support
                over a person.
              </Text>
            )}
          </Box>
        );
      })}
    </Group>
  );
}
