import { Box } from "@chakra-ui/react";
import { useState } from "react";
import type { Problem } from "../api/types";
import type { Raw } from "../draft/raw";
import { useBench } from "../draft/store";
import { parseTyped } from "../units/parse";
import { type Kind, showQuantity } from "../units/show";
import { TextBox } from "./TextBox";
import { FieldTrouble } from "./trouble";

type Given = {
  label: string;
  value: number | null;
  take: (value: number, text: string) => void;
  kind?: Kind;
  hideLabel?: boolean;
  problem?: Problem;
  /** Seen in the empty field. */
  hint?: string;
};

/** A quantity that is not part of the draft: readings, limits. Read by the core like every other. */
export function PlainQuantity({ label, value, take, kind = "length", hideLabel = false, problem, hint }: Given) {
  const style = useBench((s) => s.style);
  const [editing, setEditing] = useState<string | null>(null);
  const [raw, setRaw] = useState<Raw | null>(null);
  const [typed, setTyped] = useState<{ text: string; value: number } | null>(null);
  const own = typed !== null && typed.value === value ? typed.text : null;
  const text = editing ?? raw?.text ?? own ?? (value === null ? "" : showQuantity(value, kind, style));
  /** What is wrong goes as soon as it is mended: if it went when the field is left, a button pressed then would move away. */
  const edit = (given: string) => {
    setEditing(given);
    if (raw && !("message" in parseTyped(given, kind, style))) setRaw(null);
  };
  const finish = (given: string) => {
    if (editing === null) return;
    setEditing(null);
    if (!given.trim()) return setRaw(null);
    const read = parseTyped(given, kind, style);
    if ("message" in read) return setRaw(read);
    setRaw(null);
    setTyped({ text: read.text, value: read.value });
    take(read.value, read.text);
  };
  return (
    <Box>
      <TextBox
        label={label}
        bare={hideLabel}
        placeholder={hint}
        wrong={Boolean(raw?.message || problem)}
        data-unread={raw?.message ? "" : undefined}
        value={text}
        onChange={(e) => edit(e.target.value)}
        onBlur={(e) => finish(e.target.value)}
        onKeyDown={(e) => e.key === "Enter" && finish(e.currentTarget.value)}
      />
      <FieldTrouble raw={raw ?? undefined} problem={problem} />
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
  problem?: Problem;
}) {
  return (
    <Box>
      <TextBox
        label={props.label}
        wrong={Boolean(props.problem)}
        maxLength={120}
        type={props.secret ? "password" : "text"}
        autoComplete={props.complete ?? "off"}
        value={props.value}
        onChange={(e) => props.take(e.target.value)}
      />
      <FieldTrouble problem={props.problem} />
    </Box>
  );
}
