import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Style } from "../api/types";
import { parseTyped } from "../units/parse";
import { showDeviation, showLength } from "../units/show";
import { Big } from "./Big";
import type { FloorStep, ReadWith, Signing } from "./types";

const METRIC = ["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"] as const;
const INCH = ["7", "8", "9", "/", "4", "5", "6", "-", "1", "2", "3", ".", "0", "space", "⌫", "'"] as const;

type Given = {
  asked: FloorStep["before"][number] | null;
  style: Style;
  instruments: readonly ReadWith[];
  take: (reading: NonNullable<Signing["reading"]>) => void;
};

/** A reading typed with big keys, as the tape reads: fractions, feet, decimals. */
export function Keypad({ asked, style, instruments, take }: Given) {
  const [text, setText] = useState("");
  const [withId, setWith] = useState(instruments[0]?.id ?? "");
  const [trouble, setTrouble] = useState("");
  const keys = style === "mm" ? METRIC : INCH;
  const press = (key: string) => {
    setTrouble("");
    setText((was) => (key === "⌫" ? was.slice(0, -1) : was + (key === "space" ? " " : key)));
  };
  const read = text.trim() ? parseTyped(text, "length", style) : null;
  const value = read && !("message" in read) ? read.value : null;
  const used = instruments.find((i) => i.id === withId) ?? instruments[0];
  const planned = asked?.planned_mm;
  const enter = () => {
    if (!read || !used) return;
    if ("message" in read) return setTrouble(read.message ?? "this cannot be read");
    take({
      value_mm: read.value,
      text: text.trim(),
      instrument: used.name,
      resolution_mm: used.resolution_mm,
      note: "",
    });
  };
  return (
    <Flex direction="column" gap="3">
      {asked && planned != null && (
        <Text fontSize="20px">
          {asked.name}: planned <b>{showLength(planned, style)}</b> from {asked.datum}
        </Text>
      )}
      <Box
        aria-live="polite"
        aria-label="Typed"
        bg="sheet"
        borderWidth="2px"
        borderColor={trouble ? "removed" : "edge"}
        minH="64px"
        px="3"
        fontSize="36px"
        fontVariantNumeric="tabular-nums"
      >
        {text || " "}
        {value !== null && planned != null && (
          <Text as="span" fontSize="20px" color="faint" ms="3">
            {showDeviation(value - planned, style)} against the plan
          </Text>
        )}
      </Box>
      <Text role="alert" color="removed" fontSize="20px" minH="1.3em">
        {trouble}
      </Text>
      <Box display="grid" gap="2" gridTemplateColumns={`repeat(${style === "mm" ? 3 : 4}, 1fr)`}>
        {keys.map((key) => (
          <Big key={key} onClick={() => press(key)} label={key === "⌫" ? "delete" : key}>
            {key}
          </Big>
        ))}
      </Box>
      <Flex gap="2" wrap="wrap" role="group" aria-label="Read with">
        {instruments.map((i) => (
          <Big key={i.id} pressed={i.id === used?.id} onClick={() => setWith(i.id)}>
            {i.id === used?.id ? `✓ ${i.name}` : i.name}
          </Big>
        ))}
      </Flex>
      <Big kind="main" off={!read} onClick={enter}>
        Take this reading
      </Big>
    </Flex>
  );
}
