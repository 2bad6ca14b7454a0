import { Box, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { inTurn } from "../api/inTurn";
import type { JobRow } from "../api/types";
import { Act, PlainChoice } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { COUNTED, VERDICT_WORDS } from "../margins/group";
import { JobMenu, useJobChange } from "./JobMenu";
import { RailPicture } from "./RailPicture";
import { useMay, useSession } from "./session";

const BeginJob = lazy(async () => ({ default: (await import("../begin/BeginJob")).BeginJob }));

/** Every job of the shop; begin one, or bring one in from its open file. */
export function JobList() {
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: () => got(api.GET("/api/jobs")) });
  const may = useMay();
  const session = useSession();
  const [sought, setSought] = useState("");
  const [order, setOrder] = useState("newest");
  const [archive, setArchive] = useState(false);
  const [gone, setGone] = useState<JobRow | null>(null);
  const change = useJobChange();
  const all = jobs.data ?? [];
  const archived = all.filter((job) => job.archived).length;
  const shown = all
    .filter((job) => job.archived === archive && fits(job, sought))
    .toSorted((a, b) => (order === "name" ? a.name.localeCompare(b.name) : b.at.localeCompare(a.at)));
  return (
    <Box as="main" maxW="52rem" mx="auto" p="6">
      <Heading as="h1" size="3xl">
        Nodulant
      </Heading>
      <Flex justify="space-between" gap="3" wrap="wrap" mb="1" fontSize="15px">
        <Text>{session.link ? "Opened by a link" : `${session.shop}: ${session.user}, ${session.role}`}</Text>
        {!session.link && (
          <Flex gap="4">
            <Link to="/practice" style={{ textDecoration: "underline" }}>
              Practice
            </Link>
            <Link to="/shop" style={{ textDecoration: "underline" }}>
              The shop and its people
            </Link>
          </Flex>
        )}
      </Flex>
      <Text color="faint" mb="4">
        One job is one vehicle's conversion, from the survey to the proof.
      </Text>
      {all.length > 2 && (
        <Flex gap="3" align="end" mb="3" wrap="wrap">
          <Box flex="1" minW="12rem" maxW="20rem">
            <PlainWords label="Search jobs" value={sought} take={setSought} />
          </Box>
          <Box w="11rem">
            <PlainChoice free label="In the order of" value={order} choices={ORDERS} choose={setOrder} />
          </Box>
          {(archived > 0 || archive) && (
            <Act pressed={archive} onClick={() => setArchive(!archive)}>
              Archive, {archived}
            </Act>
          )}
        </Flex>
      )}
      {gone && (
        <Flex role="status" gap="3" align="center" p="2" mb="3" bg="sheet" borderLeftWidth="4px" borderColor="chalk">
          <Text fontSize="15px">'{gone.name}' is in the trash.</Text>
          <Act onClick={() => void change(gone, { deleted: false }).then(() => setGone(null))}>Undo</Act>
        </Flex>
      )}
      <Stack gap="2" as="ul" listStyle="none">
        {shown.map((job, k) => (
          <Flex as="li" key={job.id} bg="panel" borderWidth="1px" borderColor="rule" _hover={{ borderColor: "chalk" }}>
            <Link to={`/jobs/${job.id}`} style={{ flex: 1, minWidth: 0 }}>
              <Box p="4">
                <Flex gap="2" align="baseline" wrap="wrap">
                  <Heading as="h2" size="lg">
                    {job.name}
                  </Heading>
                  {[job.example && "example", job.template && "template"].filter(Boolean).map((tag) => (
                    <Text
                      as="span"
                      key={String(tag)}
                      fontSize="13px"
                      color="faint"
                      borderWidth="1px"
                      borderColor="rule"
                      px="1"
                    >
                      {tag}
                    </Text>
                  ))}
                </Flex>
                <Text color="faint" fontSize="14px">
                  {job.vehicle}, last stored {WHEN.format(new Date(job.at))} by {job.by}
                </Text>
                {job.note && <Text fontSize="14px">{job.note}</Text>}
                {k < COUNTED_JOBS && <Standing jobId={job.id} />}
              </Box>
            </Link>
            {may.design && <JobMenu job={job} trashed={() => setGone(job)} />}
          </Flex>
        ))}
        {jobs.data?.length === 0 && <Text>No job yet. Begin one below: name it, then measure.</Text>}
        {all.length > 0 && shown.length === 0 && <Text>No job fits.</Text>}
      </Stack>
      {may.design && (
        <Suspense>
          <BeginJob templates={all.filter((job) => job.template)} />
        </Suspense>
      )}
    </Box>
  );
}

const ORDERS = [
  ["newest", "last stored"],
  ["name", "name"],
] as const;

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** How many jobs are told how they stand: the newest, since each has to be evaluated. */
const COUNTED_JOBS = 12;

/** Whether a job's name or vehicle has every word that is sought. */
function fits(job: JobRow, sought: string): boolean {
  const text = `${job.name} ${job.vehicle}`.toLowerCase();
  return sought
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** How every option of a job stands, counted as its margins are; what is worst and what comes next. */
function Standing({ jobId }: { jobId: number }) {
  const params = { path: { job_id: jobId } };
  const found = useQuery({
    queryKey: ["counts", jobId],
    queryFn: ({ signal }) => inTurn(signal, () => got(api.GET("/api/jobs/{job_id}/counts", { params, signal }))),
  });
  return (
    <Box fontSize="14px" mt="1" minH="1.4em">
      {found.isPending && <Text color="faint">How it stands is being worked out.</Text>}
      <RailPicture rail={found.data?.[0]?.rail} />
      {found.data?.map((option) => (
        <Text key={option.id}>
          {option.name}: {told(option.counts)}
          {option.worst && <span className="row-tail">; worst: {option.worst}</span>}
          {option.next_step && <span className="row-tail">; next: {option.next_step}</span>}
        </Text>
      ))}
    </Box>
  );
}

/** Counts in the column's words. */
function told(counts: Record<string, number>): string {
  const parts = COUNTED.filter((verdict) => verdict in counts).map((v) => `${counts[v]} ${VERDICT_WORDS[v]}`);
  return parts.length ? parts.join(", ") : "cannot be evaluated yet";
}
