import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, got } from "../api/client";
import type { JobHead } from "../api/types";
import { applyMode, savedMode } from "../app/mode";
import { useMay, useSession, useSwitchPerson } from "../app/session";
import { saveDraft, saveRevision } from "../draft/autosave";
import { useBench } from "../draft/store";
import { Act, PlainChoice } from "../fields/controls";
import { KeyHelp } from "./KeyHelp";

const SAVED = { saved: "kept", saving: "keeping", unsaved: "not kept yet", failed: "not kept" } as const;

/** Job, option, save state, undo, files, light and person. */
export function TopBar({ job }: { job: JobHead }) {
  const { optionId, save, saveNote, history, undo, redo } = useBench();
  const [, setSearch] = useSearchParams();
  const may = useMay();
  const [mode, setMode] = useState(savedMode());
  const change = (next: "paper" | "dye") => {
    applyMode(next);
    setMode(next);
  };
  const open = async (id: string) => {
    if (may.design && useBench.getState().save !== "saved") await saveDraft();
    setSearch({ option: id });
  };
  return (
    <Flex
      as="header"
      px="3"
      gap="2"
      align="center"
      minH="48px"
      bg="panel"
      borderBottomWidth="2px"
      borderColor="rule"
      wrap="wrap"
    >
      <Link to="/" aria-label="All jobs">
        <Heading as="span" fontSize="22px">
          Nodulant
        </Heading>
      </Link>
      <Text fontWeight="600" whiteSpace="nowrap">
        {job.name}
      </Text>
      <Box w="13rem" aria-label="Option">
        <PlainChoice
          free
          label=""
          value={String(optionId)}
          choices={job.options.map((o) => [String(o.id), o.name] as const)}
          choose={(id) => void open(id)}
        />
      </Box>
      {may.design && <NewOption job={job} />}
      <Act off={history.past.length === 0} onClick={undo} hint="Ctrl Z">
        Undo
      </Act>
      <Act off={history.future.length === 0} onClick={redo} hint="Ctrl Shift Z">
        Redo
      </Act>
      {may.design && (
        <Act main={history.past.length > 0} onClick={() => void saveRevision("")} hint="Ctrl S">
          Save revision
        </Act>
      )}
      <Text
        role="status"
        fontSize="13px"
        color={save === "failed" ? "removed" : "faint"}
        flex="1"
        minW="4rem"
      >
        {may.design ? SAVED[save] : "to look at"}
        {saveNote && `: ${saveNote}`}
      </Text>
      <FileLink href={`/api/options/${optionId}/report.pdf`} name="Report" />
      <FileLink href={`/api/jobs/${job.id}/export`} name="Job file" />
      <Act onClick={() => change(mode === "dye" ? "paper" : "dye")}>{mode === "dye" ? "Paper" : "Dye"}</Act>
      <KeyHelp />
      <PersonChoice />
    </Flex>
  );
}

/** A file of the option as it stands; unsaved work goes along. */
export function FileLink({ href, name }: { href: string; name: string }) {
  return (
    <Act
      onClick={async () => {
        if (useBench.getState().save === "unsaved") await saveDraft();
        window.location.assign(href);
      }}
    >
      {name}
    </Act>
  );
}

function NewOption({ job }: { job: JobHead }) {
  const queries = useQueryClient();
  const [, setSearch] = useSearchParams();
  const branch = async () => {
    const { optionId, history } = useBench.getState();
    const old = job.options.find((o) => o.id === optionId)?.name ?? "option";
    const body = { name: `${old}, again`.slice(0, 120), design: history.now.design };
    const made = await got(
      api.POST("/api/options/{option_id}/branch", { params: { path: { option_id: optionId } }, body }),
    );
    await queries.invalidateQueries({ queryKey: ["job", job.id] });
    setSearch({ option: String(made.id) });
  };
  return (
    <Act onClick={() => void branch()} hint="A new option that starts from this design">
      Branch
    </Act>
  );
}

function PersonChoice() {
  const session = useSession();
  const switchTo = useSwitchPerson();
  const leave = ["", "sign out"] as const;
  const people = session.people.map((p) => [p.name, `${p.name}, ${p.role}`] as const);
  const own = [[session.user ?? "", `${session.user}, ${session.role}`] as const];
  return (
    <Box w="9.5rem" aria-label="Person">
      <PlainChoice
        free
        label=""
        value={session.user ?? ""}
        choices={[...(people.length ? people : own), leave]}
        choose={(name) => void switchTo(name || null)}
      />
    </Box>
  );
}
