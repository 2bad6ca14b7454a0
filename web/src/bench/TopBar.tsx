import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import type { JobHead } from "../api/types";
import { useMay, useSession, useSwitchPerson } from "../app/session";
import { saveDraft, saveRevision } from "../draft/autosave";
import { isRevised, useBench, usePick } from "../draft/store";
import { Act, PlainChoice } from "../fields/controls";
import { More } from "./More";

const SAVED = { saved: "kept", saving: "keeping", unsaved: "not kept yet", failed: "not kept" } as const;

/** Job, option, save state, undo, and the rest under More. */
export function TopBar({ job }: { job: JobHead }) {
  const { optionId, save, saveNote, notice, movedTo, history, undo, redo, put } = usePick(
    "optionId",
    "save",
    "saveNote",
    "notice",
    "movedTo",
    "history",
    "undo",
    "redo",
    "put",
  );
  const revised = useBench(isRevised);
  const [, setSearch] = useSearchParams();
  const may = useMay();
  useEffect(() => {
    if (movedTo !== null) setSearch({ option: String(movedTo) });
    if (movedTo !== null) put({ movedTo: null });
  }, [movedTo, setSearch, put]);
  const open = async (id: string) => {
    if (may.design && !(await saveRevision("left for another option"))) await saveDraft();
    setSearch({ option: id });
  };
  return (
    <Flex
      as="header"
      className="bench-head"
      flexWrap={{ base: "wrap", md: "nowrap" }}
      px="3"
      gap="2"
      align="center"
      minH="48px"
      bg="panel"
      borderBottomWidth="2px"
      borderColor="rule"
    >
      <Link to="/" aria-label="Nodulant, all jobs">
        <Heading as="span" fontSize="22px">
          Nodulant
        </Heading>
      </Link>
      <Heading as="h1" fontFamily="body" fontSize="16px" fontWeight="600" truncate maxW="14rem">
        {job.name}
      </Heading>
      <Box w={{ base: "13.5rem", xl: "18rem" }}>
        <PlainChoice
          free
          bare
          label="Option"
          value={String(optionId)}
          choices={job.options.map((o) => [String(o.id), o.name] as const)}
          choose={(id) => void open(id)}
        />
      </Box>
      {may.design && (
        <>
          <Act off={history.past.length === 0} onClick={undo} hint="Ctrl Z">
            Undo
          </Act>
          <Act off={history.future.length === 0} onClick={redo} hint="Ctrl Shift Z">
            Redo
          </Act>
          <Act main={!revised} off={revised} onClick={() => void saveRevision("")} hint="Ctrl S">
            Save revision
          </Act>
        </>
      )}
      <Text
        role="status"
        fontSize="13px"
        lineHeight="1.15"
        color={save === "failed" ? "removed" : "faint"}
        flex="1"
        minW="4rem"
      >
        {may.design ? SAVED[save] : "to look at"}
        {saveNote && `: ${saveNote}`}
        {notice && ` ${notice}`}
      </Text>
      <PersonChoice />
      <More job={job} />
    </Flex>
  );
}

function PersonChoice() {
  const session = useSession();
  const switchTo = useSwitchPerson();
  const leave = ["", "sign out"] as const;
  const people = session.people.map((p) => [p.name, `${p.name}, ${p.role}`] as const);
  const own = [[session.user ?? "", `${session.user}, ${session.role}`] as const];
  return (
    <Box w="9.5rem" flexShrink="0">
      <PlainChoice
        free
        bare
        label="Person"
        value={session.user ?? ""}
        choices={[...(people.length ? people : own), leave]}
        choose={(name) => void switchTo(name || null)}
      />
    </Box>
  );
}
