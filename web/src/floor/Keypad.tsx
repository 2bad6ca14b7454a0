import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Style } from "../api/types";
import { wayOf } from "../prove/tapeWay";
import { KINDS } from "../prove/useInstrument";
import { asShown, type Held, useLive } from "../prove/useLive";
import { parseTyped } from "../units/parse";
import { showDeviation, showQuantity } from "../units/show";
import { Big } from "./Big";
import type { FloorStep, ReadWith, Signing } from "./types";

const METRIC = ["7", "8", "9", "⌫", "4", "5", "6", "-", "1", "2", "3", ".", "0"] as const;
const INCH = ["7", "8", "9", "/", "4", "5", "6", "-", "1", "2", "3", ".", "0", "space", "⌫", "'"] as const;

type Given = {
  asked: FloorStep["before"][number] | null;
  /** Where the instrument is held, for what no step asks for, and which suit it. */
  held?: Held | null;
  suits?: readonly string[];
  style: Style;
  instruments: readonly ReadWith[];
  take: (reading: NonNullable<Signing["reading"]>) => void;
};

/** A reading typed with big keys, as the tape reads: fractions, feet, decimals. */
export function Keypad({ asked, held = null, suits = [], style, instruments, take }: Given) {
  const [text, setText] = useState("");
  const unit = asked?.unit ?? "mm";
  const kind = KINDS[unit];
  const able = asked?.read_with ?? suits;
  const fit = instruments.filter((i) => able.includes(i.id));
  const [withId, setWith] = useState(able[0] ?? "");
  const [trouble, setTrouble] = useState("");
  const keys = style === "mm" || unit !== "mm" ? METRIC : INCH;
  const press = (key: string) => {
    setTrouble("");
    setText((was) => (key === "⌫" ? was.slice(0, -1) : was + (key === "space" ? " " : key)));
  };
  const read = text.trim() ? parseTyped(text, kind, style) : null;
  const value = read && !("message" in read) ? read.value : null;
  const used = fit.find((i) => i.id === withId) ?? fit[0];
  const at = asked
    ? { at: `${asked.operation}/${asked.key}/${asked.side}`, planned: asked.planned, rearward: 0, rightward: 0 }
    : held;
  const live = useLive(used?.id ?? "", at);
  const settled = live.now?.settled ? live.now : null;
  const { sign, word } = asked ? wayOf(asked) : { sign: 1, word: "" };
  const planned = asked ? sign * asked.planned : undefined;
  const enter = () => {
    if (!read || !used) return;
    if ("message" in read) return setTrouble(read.message ?? "this cannot be read");
    take({
      value: sign * read.value,
      unit,
      again: false,
      text: `${text.trim()}${word}`,
      instrument: used.name,
      resolution: used.resolution,
      note: "",
    });
  };
  return (
    <Flex direction="column" gap="3">
      {asked && planned != null && (
        <Text fontSize="20px">
          {asked.name}: planned{" "}
          <b>
            {showQuantity(planned, kind, style)}
            {word}
          </b>{" "}
          from {asked.datum}
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
            {kind === "length" ? showDeviation(value - planned, style) : showQuantity(value - planned, kind, style)}{" "}
            against the plan
          </Text>
        )}
      </Box>
      <Text role="alert" color="removed" fontSize="20px" minH="1.3em">
        {trouble}
      </Text>
      {live.there && (
        <Flex direction="column" gap="2" role="group" aria-label="Live">
          <Text fontSize="24px" fontVariantNumeric="tabular-nums">
            {used?.name}: {live.now ? asShown(sign * live.now.value, kind, style) : "…"} {live.now && !settled && "…"}
          </Text>
          <Text role="alert" color="removed" fontSize="20px">
            {live.trouble}
          </Text>
          <Flex gap="2">
            {used?.zeroed && (
              <Big grow onClick={live.zero}>
                Zero it on the rail
              </Big>
            )}
            <Big grow off={!settled} onClick={() => settled && setText(asShown(sign * settled.value, kind, style))}>
              Take it over
            </Big>
          </Flex>
        </Flex>
      )}
      <Box display="grid" gap="2" gridTemplateColumns="repeat(4, 1fr)">
        {keys.map((key) => (
          <Big key={key} onClick={() => press(key)} label={key === "⌫" ? "delete" : key}>
            {key}
          </Big>
        ))}
      </Box>
      <Flex gap="2" wrap="wrap" role="group" aria-label="Read with">
        {fit.map((i) => (
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
