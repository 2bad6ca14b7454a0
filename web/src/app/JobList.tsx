import { Box, Button, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got, postText, Refused } from "../api/client";
import type { JobHead, Problem } from "../api/types";
import { PlainWords } from "../fields/plain";
import { useFile } from "../fields/useFile";
import { COUNTED, VERDICT_WORDS } from "../margins/group";
import { useMay } from "./session";
import { TroubleList } from "./TroubleList";

/** Every job of the shop; begin one, or bring one in from its open file. */
export function JobList() {
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: () => got(api.GET("/api/jobs")) });
  const may = useMay();
  return (
    <Box maxW="52rem" mx="auto" p="6">
      <Heading size="3xl">Nodulant</Heading>
      <Text color="faint" mb="5">
        One job is one vehicle's conversion, from the survey to the proof.
      </Text>
      <Stack gap="2" as="ul" listStyle="none">
        {jobs.data?.map((job, k) => (
          <Box as="li" key={job.id}>
            <Link to={`/jobs/${job.id}`}>
              <Box p="4" bg="panel" borderWidth="1px" borderColor="rule" _hover={{ borderColor: "chalk" }}>
                <Heading size="lg">{job.name}</Heading>
                <Text color="faint">{job.vehicle}</Text>
                {k < COUNTED_JOBS && <Standing jobId={job.id} />}
              </Box>
            </Link>
          </Box>
        ))}
        {jobs.data?.length === 0 && <Text>No job yet. Begin one below: name it, then measure.</Text>}
      </Stack>
      {may.design && <Begin />}
    </Box>
  );
}

/** How many jobs are told how they stand: the newest, since each has to be evaluated. */
const COUNTED_JOBS = 12;

/** How every option of a job stands, counted as its margins are. */
function Standing({ jobId }: { jobId: number }) {
  const params = { path: { job_id: jobId } };
  const found = useQuery({
    queryKey: ["counts", jobId],
    queryFn: () => got(api.GET("/api/jobs/{job_id}/counts", { params })),
  });
  return (
    <Box fontSize="14px" mt="1" minH="1.4em">
      {found.data?.map((option) => (
        <Text key={option.id}>
          {option.name}: {told(option.counts)}
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

function Begin() {
  const go = useNavigate();
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [vehicle, setVehicle] = useState("");
  const [problems, setProblems] = useState<Problem[]>([]);
  const opened = async (make: () => Promise<JobHead>) => {
    try {
      const job = await make();
      await queries.invalidateQueries({ queryKey: ["jobs"] });
      go(`/jobs/${job.id}`);
    } catch (error) {
      setProblems(asProblems(error));
    }
  };
  const begin = (event: FormEvent) => {
    event.preventDefault();
    void opened(() => got(api.POST("/api/jobs", { body: { name, vehicle } })));
  };
  const file = useFile("Job file", ".json,application/json", (chosen) => {
    void opened(() => postText<JobHead>("/api/jobs/import", chosen));
  });
  return (
    <Box mt="6" p="4" bg="panel" borderWidth="1px" borderColor="rule">
      <form onSubmit={begin}>
        <Flex gap="3" align="end" wrap="wrap">
          <PlainWords label="New job" value={name} take={setName} />
          <PlainWords label="Vehicle" value={vehicle} take={setVehicle} />
          <Button type="submit" bg="chalk" color="onchalk">
            Begin
          </Button>
          <Button variant="outline" borderColor="rule" onClick={file.ask}>
            Bring in a job file
          </Button>
          {file.input}
        </Flex>
      </form>
      <TroubleList problems={problems} lead="Nothing was written." />
    </Box>
  );
}

function asProblems(error: unknown): Problem[] {
  const message = error instanceof Error ? error.message : "that did not work";
  if (error instanceof Refused && error.problems.length) return error.problems;
  return [{ pointer: "", message, found: "", expected: "" }];
}
