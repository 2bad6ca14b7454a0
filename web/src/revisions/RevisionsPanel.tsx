import { Box, Dialog, Flex, Heading, Portal, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import type { Change, JobHead, RevisionRow } from "../api/types";
import { useMay } from "../app/session";
import { saveRevision } from "../draft/autosave";
import { isRevised, useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { useHelp } from "../help/helpStore";
import { showGhost } from "./ghost";

type OptionHead = components["schemas"]["OptionHead"];
type OptionChange = components["schemas"]["OptionChange"];

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Options of the job with their names and notes, and every stored revision of the open one. */
export default function RevisionsPanel({ job }: { job: JobHead }) {
  const { revisions, put } = useHelp();
  const close = () => put({ revisions: false });
  return (
    <Dialog.Root open={revisions} onOpenChange={({ open }) => !open && close()} size="xl" scrollBehavior="inside">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" color="ink" maxH="86vh">
            <Dialog.Header display="flex" gap="3" alignItems="center">
              <Dialog.Title fontFamily="heading" flex="1">
                Options and revisions
              </Dialog.Title>
              <Act onClick={close}>Close</Act>
            </Dialog.Header>
            <Dialog.Body overflowY="auto" tabIndex={0} aria-label="Options and revisions">
              <Options job={job} />
              <RevisionList close={close} />
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Options({ job }: { job: JobHead }) {
  const queries = useQueryClient();
  const [, setSearch] = useSearchParams();
  const own = useBench((s) => s.optionId);
  const [gone, setGone] = useState<OptionHead | null>(null);
  const change = async (option: OptionHead, body: OptionChange) => {
    await got(api.PATCH("/api/options/{option_id}", { params: { path: { option_id: option.id } }, body }));
    await queries.invalidateQueries({ queryKey: ["job", job.id] });
  };
  const remove = async (option: OptionHead) => {
    const other = job.options.find((o) => o.id !== option.id);
    if (option.id === own) {
      await saveRevision("left for another option");
      setSearch({ option: String(other?.id) });
    }
    await change(option, { deleted: true });
    setGone(option);
  };
  return (
    <Box as="section" aria-label="Options" mb="5">
      <Heading as="h3" fontSize="17px" mb="1">
        Options
      </Heading>
      {gone && (
        <Flex role="status" gap="3" align="center" p="2" mb="2" bg="sheet" borderLeftWidth="4px" borderColor="chalk">
          <Text fontSize="15px">'{gone.name}' is in the trash.</Text>
          <Act onClick={() => void change(gone, { deleted: false }).then(() => setGone(null))}>Undo</Act>
        </Flex>
      )}
      {job.options.map((option) => (
        <OptionRow
          key={option.id}
          option={option}
          open={option.id === own}
          last={job.options.length === 1}
          change={(body) => void change(option, body)}
          remove={() => void remove(option)}
        />
      ))}
    </Box>
  );
}

type RowProps = {
  option: OptionHead;
  open: boolean;
  last: boolean;
  change: (body: OptionChange) => void;
  remove: () => void;
};

function OptionRow({ option, open, last, change, remove }: RowProps) {
  const may = useMay();
  const [name, setName] = useState(option.name);
  const [note, setNote] = useState(option.note);
  const changed = name.trim() !== option.name || note.trim() !== option.note;
  return (
    <Flex gap="3" align="end" py="2" borderBottomWidth="1px" borderColor="rule" wrap="wrap">
      <Box flex="2" minW="12rem">
        <PlainWords label={open ? "Name (on the bench)" : "Name"} value={name} take={setName} />
      </Box>
      <Box flex="3" minW="12rem">
        <PlainWords label="Note" value={note} take={setNote} />
      </Box>
      {may.design && (
        <>
          <Act off={!changed || !name.trim()} onClick={() => change({ name: name.trim(), note: note.trim() })}>
            Keep
          </Act>
          <Act off={last} hint={last ? "a job keeps at least one option" : undefined} onClick={remove}>
            Delete
          </Act>
        </>
      )}
    </Flex>
  );
}

function RevisionList({ close }: { close: () => void }) {
  const { optionId, base } = useBench.getState();
  const rows = useQuery({
    queryKey: ["revisions", optionId, base],
    gcTime: 0,
    queryFn: () => got(api.GET("/api/options/{option_id}/revisions", { params: { path: { option_id: optionId } } })),
  });
  return (
    <Box as="section" aria-label="Revisions">
      <Heading as="h3" fontSize="17px" mb="1">
        Revisions of this option
      </Heading>
      <SaveWithNote />
      {(rows.data ?? []).map((row, i) => (
        <Revision key={row.number} row={row} newest={i === 0} close={close} />
      ))}
    </Box>
  );
}

/** What is on the bench as a revision of its own, with a word on what it is for. */
function SaveWithNote() {
  const may = useMay();
  const queries = useQueryClient();
  const revised = useBench(isRevised);
  const [note, setNote] = useState("");
  if (!may.design || revised) return null;
  const save = async () => {
    await saveRevision(note.trim());
    await queries.invalidateQueries({ queryKey: ["revisions"] });
  };
  return (
    <Flex gap="3" align="end" mb="2" wrap="wrap">
      <Box flex="1" minW="12rem">
        <PlainWords label="What the next revision is for" value={note} take={setNote} />
      </Box>
      <Act main onClick={() => void save()}>
        Save revision
      </Act>
    </Flex>
  );
}

const FEW = 5;

function Revision({ row, newest, close }: { row: RevisionRow; newest: boolean; close: () => void }) {
  const may = useMay();
  const optionId = useBench((s) => s.optionId);
  const [all, setAll] = useState(false);
  const [since, setSince] = useState<Change[] | null>(null);
  const fetched = () => {
    const params = { path: { option_id: optionId, number: row.number } };
    return got(api.GET("/api/options/{option_id}/revisions/{number}", { params }));
  };
  const draw = async () => {
    await showGhost(`Revision ${row.number}`, (await fetched()).design);
    close();
  };
  const restore = async () => {
    await saveRevision(`before revision ${row.number} was put back`);
    const { design } = await fetched();
    useBench.getState().act({ kind: "design", value: design });
    await saveRevision(`revision ${row.number} put back`);
    close();
  };
  const told = all ? row.changes : row.changes.slice(0, FEW);
  return (
    <Box as="article" aria-label={`Revision ${row.number}`} py="2" borderBottomWidth="1px" borderColor="rule">
      <Flex gap="2" align="center" wrap="wrap">
        <Text flex="1" fontSize="15px">
          <b>{row.number}</b> {WHEN.format(new Date(row.at))}, {row.by}
          {row.note && `: ${row.note}`}
        </Text>
        <Act onClick={() => void draw()}>Draw it under the sheet</Act>
        {!newest && <Act onClick={() => void fetched().then((found) => setSince(found.since))}>Changed since</Act>}
        {!newest && may.design && <Act onClick={() => void restore()}>Put it back</Act>}
      </Flex>
      <Changes rows={told} empty={row.number === 1 ? "the beginning" : "nothing but how it was typed"} />
      {row.changes.length > FEW && !all && <Act onClick={() => setAll(true)}>{row.changes.length - FEW} more</Act>}
      {since && (
        <Box mt="2" p="2" bg="sheet">
          <Text fontWeight="600" fontSize="14px">
            From then to the newest
          </Text>
          <Changes rows={since} empty="nothing" />
        </Box>
      )}
    </Box>
  );
}

function Changes({ rows, empty }: { rows: readonly Change[]; empty: string }) {
  if (rows.length === 0)
    return (
      <Text fontSize="14px" color="faint">
        {empty}
      </Text>
    );
  return (
    <Box as="ul" ps="4" fontSize="14px" listStyle="square">
      {rows.map((c) => (
        <li key={`${c.about}${c.field}`}>
          {c.about}
          {c.field && `, ${c.field}`}: {inWords(c)}
        </li>
      ))}
    </Box>
  );
}

/** What a change did: came, went, or from what to what. */
function inWords({ before, after, field }: Change): string {
  if (!field) return after ? "put into the plan" : "taken out of the plan";
  if (!before) return after;
  return after ? `${before} → ${after}` : `${before}, now empty`;
}
