import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Along, AlongNote } from "../api/types";
import { useMay } from "../app/session";
import { useBench, usePick } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Act, Group } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { VerdictMark } from "../margins/VerdictMark";
import { showLength } from "../units/show";

const MARKS = {
  clears: "holds",
  "too near": "fails",
  "not computed": "not computed",
  "not there": "holds",
  "way out": "close",
} as const;

/** What a raise, a step or a narrowing takes along, or what was seen in the way: each with its clearance, or the cut stays locked. */
export function AlongList() {
  const rows = useShown((s) => s.result?.along ?? NONE);
  const locked = useShown((s) => s.result?.cut_locked ?? false);
  const open = rows.filter((r) => r.status === "not computed" || r.status === "too near");
  if (rows.length === 0) return null;
  return (
    <Group title="Goes along or in the way: does it clear?">
      <Text fontSize="14px" p="2" bg="sheet" borderLeftWidth="4px" borderColor={locked ? "removed" : "added"} mb="1">
        <b>{locked ? "The cut is locked." : open.length ? "Released with a reason." : "The cut is released."}</b>{" "}
        {open.length ? `${open.length} of ${rows.length} have no clearance yet.` : "Everything is settled."}
        {locked && " The build plan waits there; it can be passed with a reason."}
      </Text>
      {rows.map((row) => (
        <Row key={row.thing} row={row} />
      ))}
    </Group>
  );
}

function Row({ row }: { row: Along }) {
  const { style, act } = usePick("style", "act");
  const notes = useBench((s) => s.history.now.design.along ?? NONE) as readonly AlongNote[];
  const may = useMay();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const noted = row.status === "not there" || row.status === "way out";
  const others = notes.filter((n) => n.thing !== row.thing);
  const put = (value: readonly AlongNote[]) => act({ kind: "set", path: ["design", "along"], value });
  const said =
    row.clearance_mm == null
      ? noted
        ? `${row.status}: ${row.words}`
        : `not computed: ${row.words}`
      : `${showLength(row.clearance_mm, style)}${row.nearest ? ` to the ${row.nearest}` : " to spare"}`;
  return (
    <Box className="row">
      <button type="button" className="row-head" aria-expanded={open} onClick={() => setOpen(!open)}>
        <VerdictMark verdict={MARKS[row.status]} />
        <span className="row-words">
          <span className="row-title" style={{ display: "block" }}>
            {row.name}
          </span>
          <span className="row-value" style={{ display: "block" }}>
            {said}
          </span>
        </span>
      </button>
      {open && (
        <Box px="1" pb="2" fontSize="14px">
          {row.clearance_mm != null && <Text>{row.words}.</Text>}
          {may.design && noted && <Act onClick={() => put(others)}>Take back what was said</Act>}
          {may.design && !noted && (
            <>
              <PlainWords label={`${row.name}: how it is settled`} value={words} take={setWords} />
              <Flex gap="2" mt="1">
                <Act
                  off={!words.trim()}
                  onClick={() => put([...others, { thing: row.thing, how: "way-out", words: words.trim() }])}
                >
                  This is the way out
                </Act>
                <Act
                  onClick={() =>
                    put([
                      ...others,
                      { thing: row.thing, how: "not-there", words: words.trim() || "this vehicle has none" },
                    ])
                  }
                >
                  It has none
                </Act>
              </Flex>
            </>
          )}
        </Box>
      )}
    </Box>
  );
}
