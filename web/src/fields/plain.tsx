import { Box, Flex, Input, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Raw } from "../draft/raw";
import { useBench } from "../draft/store";
import { parseTyped } from "../units/parse";
import { type Kind, showQuantity } from "../units/show";
import { FieldTrouble } from "./trouble";

type Given = {
  label: string;
  value: number | null;
  take: (value: number, text: string) => void;
  kind?: Kind;
  hideLabel?: boolean;
};

/** A quantity that is not part of the draft: readings, limits. Read by the core like every other. */
export function PlainQuantity({ label, value, take, kind = "length", hideLabel = false }: Given) {
  const style = useBench((s) => s.style);
  const [editing, setEditing] = useState<string | null>(null);
  const [raw, setRaw] = useState<Raw | null>(null);
  const text = editing ?? raw?.text ?? (value === null ? "" : showQuantity(value, kind, style));
  const finish = async (given: string) => {
    if (editing === null) return;
    setEditing(null);
    if (!given.trim()) return setRaw(null);
    const read = await parseTyped(given, kind, style);
    if ("message" in read) return setRaw(read);
    setRaw({ text: read.text, message: "", position: null, acceptable: "" });
    take(read.value, read.text);
  };
  return (
    <Box>
      <Flex as="label" direction="column" fontSize="14px">
        {!hideLabel && (
          <Text as="span" color="faint">
            {label}
          </Text>
        )}
        <Input
          size="sm"
          height="34px"
          px="2"
          bg="sheet"
          fontSize="15px"
          fontVariantNumeric="tabular-nums"
          borderColor={raw?.message ? "removed" : "rule"}
          aria-invalid={Boolean(raw?.message)}
          aria-label={hideLabel ? label : undefined}
          value={text}
          onChange={(e) => setEditing(e.target.value)}
          onBlur={(e) => void finish(e.target.value)}
          onKeyDown={(e) => e.key === "Enter" && void finish(e.currentTarget.value)}
        />
      </Flex>
      <FieldTrouble raw={raw ?? undefined} />
    </Box>
  );
}

/** Words that are not part of the draft: reasons, notes, names. */
export function PlainWords(props: {
  label: string;
  value: string;
  take: (value: string) => void;
  secret?: boolean;
  complete?: string;
}) {
  return (
    <Flex as="label" direction="column" fontSize="14px">
      <Text as="span" color="faint">
        {props.label}
      </Text>
      <Input
        size="sm"
        height="34px"
        px="2"
        bg="sheet"
        borderColor="rule"
        fontSize="15px"
        maxLength={120}
        type={props.secret ? "password" : "text"}
        autoComplete={props.complete ?? "off"}
        value={props.value}
        onChange={(e) => props.take(e.target.value)}
      />
    </Flex>
  );
}
