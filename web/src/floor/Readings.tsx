import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useMay } from "../app/session";
import { Big, Over } from "./Big";
import { Corrects } from "./Corrects";
import { FrameTape } from "./FrameTape";
import { plannedAs } from "./Gate";
import { Keypad } from "./Keypad";
import { Photo } from "./Photo";
import type { FloorSheet } from "./types";
import type { Floor } from "./useFloor";

type Asked = FloorSheet["readings"][number];

/** Everything that can be read, by what it is of: the open ones first, with what those that were taken say. */
export function Readings({ floor, close }: { floor: Floor; close: () => void }) {
  const may = useMay();
  const [asked, setAsked] = useState<Asked | null>(null);
  const [about, setAbout] = useState<string | null>(null);
  const [tape, setTape] = useState(false);
  const [corrects, setCorrects] = useState(false);
  const [pictured, setPictured] = useState<Asked | null>(null);
  const { readings, style, instruments } = floor.sheet;
  if (tape) return <FrameTape floor={floor} close={() => setTape(false)} />;
  if (corrects) return <Corrects floor={floor} close={() => setCorrects(false)} />;
  if (pictured) {
    const name = `${pictured.name}, ${pictured.side}`;
    return (
      <Over title={`Photo: ${name}`} close={() => setPictured(null)}>
        <Photo
          keep={(picture, words) => {
            const of = `${pictured.operation}/${pictured.key}/${pictured.side}`;
            void floor.photo(of, picture, words || name, `Photo: ${name}`);
            setPictured(null);
          }}
        />
      </Over>
    );
  }
  if (asked) {
    return (
      <Over title={`${asked.name}, ${asked.side}`} close={() => setAsked(null)}>
        <Keypad
          asked={asked}
          style={style}
          instruments={instruments}
          take={(reading) => {
            const { operation, key, side } = asked;
            void floor.write({ kind: "reading", operation, key, side, reading }, `${asked.name}, ${side}`);
            setAsked(null);
          }}
        />
      </Over>
    );
  }
  if (about === null) {
    const groups = [...new Set(readings.map((r) => r.about))];
    return (
      <Over title="Readings" close={close}>
        <Big kind="main" onClick={() => setTape(true)}>
          Frame by tape and level
        </Big>
        <Big kind="main" onClick={() => setCorrects(true)}>
          What corrects it
        </Big>
        {groups.map((name) => {
          const own = readings.filter((r) => r.about === name && (!r.extra || r.taken));
          return (
            <Big key={name} onClick={() => setAbout(name)}>
              {name}: {own.length ? `${own.filter((r) => r.taken).length} of ${own.length}` : "can be read"}
            </Big>
          );
        })}
      </Over>
    );
  }
  return (
    <Over title={about} close={() => setAbout(null)}>
      {readings
        .filter((r) => r.about === about)
        .map((r) => (
          <Box
            key={`${r.operation}/${r.key}/${r.side}`}
            bg="sheet"
            p="2"
            borderLeftWidth="6px"
            borderColor={r.answer === "fails" ? "removed" : r.answer === "holds" ? "added" : "touch"}
          >
            <Text fontSize="20px" lineHeight="1.25" mb="1">
              {r.name}, {r.side}: planned {plannedAs(r, style)}
              {r.taken && `, read ${r.taken}: ${r.answer ?? "on its way"}`}
            </Text>
            {r.answer && r.answer !== "holds" && <Text fontSize="20px">{r.words}</Text>}
            {may.log && (
              <Flex gap="2">
                <Big grow onClick={() => setAsked(r)}>
                  {r.taken ? "Read again" : "Read it"}
                </Big>
                <Big onClick={() => setPictured(r)}>Photo</Big>
              </Flex>
            )}
          </Box>
        ))}
    </Over>
  );
}
