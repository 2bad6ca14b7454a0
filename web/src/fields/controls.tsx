import { Box, Button, Flex, Heading, NativeSelect, Text } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { useMay } from "../app/session";
import { type Path, valueAt } from "../draft/document";
import { seenDraft, useBench } from "../draft/store";
import { TextBox } from "./TextBox";
import { FieldTrouble, pointerOf, useProblem } from "./trouble";

/** A choice among named values at a path of the draft. */
export function ChoiceField(props: { label: string; path: Path; choices: readonly (readonly [string, string])[] }) {
  const { label, path, choices } = props;
  const value = useBench((s) => valueAt(seenDraft(s), path)) as string;
  const act = useBench((s) => s.act);
  return (
    <PlainChoice
      label={label}
      value={value}
      choices={choices}
      choose={(next) => act({ kind: "set", path, value: next })}
      field={pointerOf(path)}
    />
  );
}

/** A choice that is not a field of the draft. */
export function PlainChoice(props: {
  label: string;
  value: string;
  choices: readonly (readonly [string, string])[];
  choose: (value: string) => void;
  /** Open to everyone, not only to those who may design. */
  free?: boolean;
  /** The label is only spoken. */
  bare?: boolean;
  /** Its pointer where it is a field of the draft. */
  field?: string;
}) {
  const may = useMay();
  return (
    <Flex as="label" direction="column" fontSize="14px">
      {!props.bare && (
        <Text as="span" color="faint">
          {props.label}
        </Text>
      )}
      <NativeSelect.Root size="sm" disabled={!props.free && !may.design}>
        <NativeSelect.Field
          height="34px"
          ps="2"
          bg="sheet"
          borderColor="edge"
          fontSize="15px"
          aria-label={props.label}
          data-field={props.field}
          value={props.value}
          onChange={(e) => props.choose(e.target.value)}
        >
          {props.choices.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </Flex>
  );
}

/** Words at a path of the draft, taken when the field is left. */
export function WordsField({
  label,
  path,
  empty = false,
  none = null,
}: {
  label: string;
  path: Path;
  empty?: boolean;
  /** What stands in the draft where nothing is typed. */
  none?: string | null;
}) {
  const pointer = pointerOf(path);
  const value = (useBench((s) => valueAt(seenDraft(s), path)) as string | null) ?? "";
  const act = useBench((s) => s.act);
  const problem = useProblem(pointer);
  const may = useMay();
  const [editing, setEditing] = useState<string | null>(null);
  const take = () => {
    if (editing !== null && editing.trim() !== value) {
      act({ kind: "set", path, value: empty && !editing.trim() ? none : editing.trim() });
    }
    setEditing(null);
  };
  return (
    <Box>
      <TextBox
        label={label}
        wrong={Boolean(problem)}
        value={editing ?? value}
        placeholder={empty && none === null ? "not known" : ""}
        readOnly={!may.design}
        data-field={pointer}
        onChange={(e) => setEditing(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === "Enter" && take()}
      />
      <FieldTrouble problem={problem} />
    </Box>
  );
}

/** A yes or no at a path of the draft. */
export function TickField({ label, path }: { label: string; path: Path }) {
  const value = Boolean(useBench((s) => valueAt(seenDraft(s), path)));
  const act = useBench((s) => s.act);
  const may = useMay();
  const set = (ticked: boolean) => act({ kind: "set", path, value: ticked });
  return <PlainTick label={label} value={value} take={set} off={!may.design} />;
}

/** A yes or no that is not part of the draft. */
export function PlainTick(props: { label: string; value: boolean; take: (value: boolean) => void; off?: boolean }) {
  return (
    <Flex as="label" gap="2" align="center" fontSize="14px" minH="28px">
      <input
        type="checkbox"
        checked={props.value}
        disabled={props.off}
        onChange={(e) => props.take(e.target.checked)}
        className="tick"
      />
      {props.label}
    </Flex>
  );
}

type GroupProps = {
  title: string;
  extra?: ReactNode;
  /** The pointer of what it holds, so that what is missing there is found. */
  field?: string;
  children: ReactNode;
};

/** A titled group of fields. */
export function Group({ title, extra, field, children }: GroupProps) {
  const reached = field ? { "data-field": field, tabIndex: -1 } : {};
  return (
    <Box as="section" borderTopWidth="1px" borderColor="rule" pt="2" mt="3" aria-label={title} {...reached}>
      <Flex justify="space-between" align="center" mb="1" gap="2">
        <Heading as="h3" fontSize="17px" lineHeight="1.2">
          {title}
        </Heading>
        {extra}
      </Flex>
      {children}
    </Box>
  );
}

/** Two fields side by side. */
export function Pair({ children }: { children: ReactNode }) {
  return (
    <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2" mb="2" alignItems="start">
      {children}
    </Box>
  );
}

/** A small button of the bench. */
export function Act(props: {
  children: ReactNode;
  onClick: () => void;
  main?: boolean;
  off?: boolean;
  hint?: string;
  /** Of a button that stays down. */
  pressed?: boolean;
  /** One of many in a list: no box round it. */
  slight?: boolean;
}) {
  if (props.slight)
    return (
      <Button
        variant="plain"
        minH="24px"
        height="auto"
        px="0"
        fontSize="13px"
        fontWeight="400"
        color="chalk"
        textDecoration="underline"
        disabled={props.off}
        onClick={props.onClick}
      >
        {props.children}
      </Button>
    );
  return (
    <Button
      size="sm"
      minH="34px"
      px="3"
      fontSize="14px"
      disabled={props.off}
      title={props.hint}
      aria-pressed={props.pressed}
      variant={props.main ? "solid" : "outline"}
      bg={props.main ? "chalk" : undefined}
      color={props.main ? "onchalk" : "ink"}
      borderColor={props.pressed ? "chalk" : "edge"}
      _hover={props.main ? undefined : { bg: "sheet", borderColor: "chalk" }}
      onClick={props.onClick}
    >
      {props.children}
    </Button>
  );
}
