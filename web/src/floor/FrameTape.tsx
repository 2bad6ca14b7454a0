import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useMay } from "../app/session";
import { heldAt, heldBetween } from "../prove/marks";
import { WHENS, type When } from "../prove/TakeFrame";
import { Big, Over } from "./Big";
import { Keypad } from "./Keypad";
import type { FloorSheet } from "./types";
import type { Floor } from "./useFloor";

type Point = FloorSheet["points"][number];
type What = "length" | "level";

const placed = (point: Point) => {
  const [feature_id = "", side] = point.id.split("/");
  return { feature_id, side: side === "right" ? ("right" as const) : ("left" as const) };
};

/** Lengths between marks and hubs, and levels, by thumb; what they say so far stands on top. */
export function FrameTape({ floor, close }: { floor: Floor; close: () => void }) {
  const { points, frame, style, instruments } = floor.sheet;
  const may = useMay();
  const [when, setWhen] = useState<When>("");
  const [what, setWhat] = useState<What | null>(null);
  const [start, setStart] = useState<Point | null>(null);
  const [end, setEnd] = useState<Point | null>(null);
  const over = () => {
    setWhat(null);
    setStart(null);
    setEnd(null);
  };
  const between = (ids: readonly string[], then: When) => {
    const [a, b] = ids.map((id) => points.find((p) => p.id === id));
    if (!a || !b) return;
    setStart(a);
    setEnd(b);
    setWhen(then);
    setWhat("length");
  };
  if (what === null) {
    return (
      <Over title="Frame by tape" close={close}>
        {frame.map(({ words, tape, when: then }) => (
          <Box key={words} borderLeftWidth="6px" borderColor="touch" ps="2">
            <Text fontSize="20px" mb="1">
              {words}
            </Text>
            {may.log && tape.length === 2 && <Big onClick={() => between(tape, then)}>Tape it</Big>}
          </Box>
        ))}
        <Flex gap="2" wrap="wrap" role="group" aria-label="Measured">
          {WHENS.map(([id, name]) => (
            <Big key={id} pressed={id === when} onClick={() => setWhen(id)}>
              {id === when ? `✓ ${name}` : name}
            </Big>
          ))}
        </Flex>
        <Big kind="main" onClick={() => setWhat("length")}>
          A length
        </Big>
        <Big kind="main" onClick={() => setWhat("level")}>
          A level
        </Big>
      </Over>
    );
  }
  if (start === null || (what === "length" && end === null)) {
    const title = what === "level" ? "Level at" : start === null ? "From" : `${start.name}, to`;
    const choices = points.filter((p) => p.id !== start?.id && (what === "length" || p.level));
    return (
      <Over title={title} close={over}>
        <Box display="grid" gap="2">
          {choices.map((p) => (
            <Big key={p.id} onClick={() => (start === null ? setStart(p) : setEnd(p))}>
              {p.name}
            </Big>
          ))}
        </Box>
      </Over>
    );
  }
  const title = end === null ? `Level at ${start.name}` : `${start.name} to ${end.name}`;
  return (
    <Over title={title} close={over}>
      <Keypad
        asked={null}
        suits={end === null ? floor.sheet.level_with : floor.sheet.length_with}
        held={end === null ? heldAt(start.mark, when) : heldBetween(start.mark, end.mark, when)}
        style={style}
        instruments={instruments}
        take={({ value, text, instrument, resolution, note }) => {
          const reading = { value, text, instrument, resolution, note };
          const act =
            end === null
              ? { kind: "level" as const, point: placed(start), when, reading }
              : { kind: "length" as const, start: placed(start), end: placed(end), when, reading };
          void floor.write(act, title);
          over();
        }}
      />
    </Over>
  );
}
