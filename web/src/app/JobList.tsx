import { Box, Heading, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { BeginJob } from "../begin/BeginJob";
import { COUNTED, VERDICT_WORDS } from "../margins/group";
import { useMay } from "./session";

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
      {may.design && <BeginJob />}
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
