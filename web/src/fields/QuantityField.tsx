import { Box, Text } from "@chakra-ui/react";
import { type KeyboardEvent, memo, useState } from "react";
import type { Style } from "../api/types";
import { useMay } from "../app/session";
import { type Path, typedKey, valueAt } from "../draft/document";
import { dropRaw, keepRaw, useRaw } from "../draft/raw";
import { seenDraft, useBench } from "../draft/store";
import { parseTyped } from "../units/parse";
import { asTyped, type Kind, nudgeOf, showQuantity } from "../units/show";
import { TextBox } from "./TextBox";
import { FieldTrouble, pointerOf, sameField, useAssumed, useProblem } from "./trouble";

type Props = {
  label: string;
  path: Path;
  kind?: Kind;
  /** Words under the field, such as the datum it is measured from. */
  note?: string;
  /** Shown greyed in place of an empty value, such as a solved amount. */
  instead?: string;
  optional?: boolean;
  /** The field tells how far ahead a place lies that the draft holds as negative. */
  ahead?: boolean;
  /** A place along the vehicle: what lies ahead of where the tape is hooked on is told and typed as 'ahead', not as a negative. */
  place?: boolean;
};

const WAY = /\s*(ahead|behind)$/i;

/** A quantity as people type it. The core reads the text; what it cannot read stays here with the place of the error. */
export const QuantityField = memo(function QuantityField({
  label,
  path,
  kind = "length",
  note,
  instead,
  optional = false,
  ahead = false,
  place = false,
}: Props) {
  const pointer = pointerOf(path);
  const kept = useBench((s) => valueAt(seenDraft(s), path)) as number | null | undefined;
  const turned = (mm: number) => (ahead ? 0 - mm : mm);
  const value = kept == null ? kept : turned(kept);
  const root = path[0] === "survey" ? "survey" : "design";
  const typed = useBench((s) => seenDraft(s)[root].typed?.[typedKey(s.history.now, path)]);
  const style = useBench((s) => s.style);
  const act = useBench((s) => s.act);
  const assumed = useAssumed(path);
  const raw = useRaw((s) => s.texts[pointer]);
  const problem = useProblem(pointer);
  const may = useMay();
  const [editing, setEditing] = useState<string | null>(null);
  const told = (mm: number) =>
    place && mm < 0 ? `${showQuantity(-mm, kind, style)} ahead` : showQuantity(mm, kind, style);
  const shown =
    typed && !ahead && !(place && (value ?? 0) < 0) ? asTyped(typed, kind, style) : value == null ? "" : told(value);
  const text = editing ?? raw?.text ?? shown;

  const take = (given: string, entered = false) => {
    setEditing(null);
    if (given.trim() === shown && !raw && !(assumed && entered)) return;
    if (optional && given.trim() === "") {
      dropRaw(pointer);
      act({ kind: "set", path, value: null });
      return;
    }
    const way = place ? WAY.exec(given.trim())?.[1]?.toLowerCase() : undefined;
    const read = parseTyped(way ? given.trim().replace(WAY, "") : given, kind, style);
    if ("message" in read) keepRaw(pointer, read);
    else {
      dropRaw(pointer);
      const typed = ahead || way ? undefined : { text: read.text, unit: read.unit };
      act({ kind: "set", path, value: way === "ahead" ? -Math.abs(read.value) : turned(read.value), typed });
    }
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    const step = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
    if (event.key === "Enter") take(event.currentTarget.value, true);
    else if (event.key === "Escape") {
      setEditing(null);
      dropRaw(pointer);
    } else if (step && value != null) {
      event.preventDefault();
      setEditing(null);
      dropRaw(pointer);
      act({
        kind: "set",
        path,
        value: round(turned(value + step * nudgeOf(kind, style) * (event.shiftKey ? 8 : 1))),
      });
    }
  };
  const wrong = Boolean(raw?.message || problem);
  return (
    <Box>
      <TextBox
        label={label}
        wrong={wrong}
        assumed={assumed && editing === null}
        value={text}
        placeholder={instead ?? (optional ? "not measured" : "")}
        readOnly={!may.design}
        data-field={pointer}
        inputMode={keyboardOf(kind, style)}
        onChange={(e) => setEditing(e.target.value)}
        onBlur={(e) => take(e.target.value)}
        onKeyDown={onKey}
      />
      {note && (
        <Text fontSize="13px" color="faint">
          {note}
        </Text>
      )}
      <FieldTrouble raw={raw} problem={raw ? undefined : problem} />
    </Box>
  );
}, sameField);

/** Fractions need a slash and a blank; plain numbers the number pad. */
export const keyboardOf = (kind: Kind, style: Style) =>
  style !== "mm" && (kind === "length" || kind === "thickness") ? "text" : "decimal";

const round = (value: number) => Math.round(value * 1e6) / 1e6;
