import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Style } from "../api/types";
import { useMay } from "../app/session";
import { wayOf } from "../prove/tapeWay";
import { KINDS } from "../prove/useInstrument";
import { showQuantity } from "../units/show";
import { Big, Over } from "./Big";
import { Keypad } from "./Keypad";
import type { FloorStep } from "./types";
import type { Floor } from "./useFloor";

type Asked = FloorStep["before"][number];

/** What opens a step: parts in hand, readings that are as planned. */
export function Gate({ floor, step }: { floor: Floor; step: FloorStep }) {
  const may = useMay();
  const [asked, setAsked] = useState<Asked | null>(null);
  if (step.parts.length === 0 && step.before.length === 0) return null;
  return (
    <Flex direction="column" gap="2" aria-label="What opens it" role="group">
      {step.parts.map((p) => (
        <Row key={p.key} done={p.here} words={`${p.name}: ${p.read}`}>
          {may.log && (
            <Big
              pressed={p.here}
              onClick={() => void floor.write({ kind: "part", part: p.key, here: !p.here, text: "" }, p.name)}
            >
              {p.here ? "✓ here" : "In hand, measured"}
            </Big>
          )}
        </Row>
      ))}
      {step.before.map((a) => (
        <Row
          key={`${a.operation}${a.side}`}
          done={a.taken !== ""}
          words={`${a.name}, ${a.side}: planned ${plannedAs(a, floor.sheet.style)}${a.taken && `, read ${a.taken}`}`}
        >
          {may.log && <Big onClick={() => setAsked(a)}>{a.taken ? "Read again" : "Read it"}</Big>}
        </Row>
      ))}
      {asked && (
        <Over title={`${asked.name}, ${asked.side}`} close={() => setAsked(null)}>
          <Keypad
            asked={asked}
            style={floor.sheet.style}
            instruments={floor.sheet.instruments}
            take={(reading) => {
              const { operation, key, side } = asked;
              void floor.write({ kind: "reading", operation, key, side, reading }, `${asked.name}, ${side}`);
              setAsked(null);
            }}
          />
        </Over>
      )}
    </Flex>
  );
}

/** What is planned, as a tape reads it. */
export function plannedAs(asked: Asked, style: Style): string {
  const { sign, word } = wayOf(asked);
  return `${showQuantity(sign * asked.planned, KINDS[asked.unit], style)}${word}`;
}

function Row({ done, words, children }: { done: boolean; words: string; children: React.ReactNode }) {
  return (
    <Box bg="sheet" p="2" borderLeftWidth="6px" borderColor={done ? "added" : "touch"}>
      <Text fontSize="20px" lineHeight="1.25" mb="1">
        {words}
      </Text>
      {children}
    </Box>
  );
}
