import { Box, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import { useMay } from "../app/session";
import { Act, PlainChoice } from "../fields/controls";
import { reasonOf } from "../prove/reason";

type Page = components["schemas"]["PracticePage"];
type Row = components["schemas"]["PracticeRow"];
const KEY = ["practice"];

/** Jobs with one mistake in them, to be found with the same tools; what each cost, and how far one has come. */
export default function PracticePage() {
  const page = useQuery({ queryKey: KEY, queryFn: () => got(api.GET("/api/practice")) });
  const { busy, trouble, call } = useCall();
  const may = useMay();
  useEffect(() => {
    document.title = "Practice, Nodulant";
  }, []);
  const found = page.data;
  return (
    <Box as="main" maxW="52rem" mx="auto" p="6">
      <Flex align="baseline" gap="4" mb="2" wrap="wrap">
        <Heading as="h1" size="3xl">
          Practice
        </Heading>
        <Link to="/" style={{ textDecoration: "underline" }}>
          Jobs
        </Link>
      </Flex>
      <Text mb="3">
        Each of these jobs was done well but for one mistake. Open it, use every tool there is, and say what is wrong.
        Hints cost points, wrong accusations cost more.
      </Text>
      {found && found.rows.length > 0 && (
        <Text mb="3" fontSize="15px">
          {found.found} of {found.over} found, {found.points} points; {found.met} of {found.kinds} kinds of mistake met.
        </Text>
      )}
      {may.log && (
        <Act main off={busy} onClick={() => void call(() => api.POST("/api/practice"))}>
          {busy ? "One moment…" : "A new practice job"}
        </Act>
      )}
      <Text role="alert" color="removed" fontSize="14px" minH="1.4em">
        {trouble}
      </Text>
      <Stack gap="3">
        {found?.rows.map((row) => (
          <Job key={row.job_id} row={row} choices={found.choices} />
        ))}
      </Stack>
    </Box>
  );
}

function useCall() {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState("");
  const call = async (work: () => Promise<unknown>) => {
    setBusy(true);
    try {
      await work();
      setTrouble("");
    } catch (error) {
      setTrouble(reasonOf(error));
    }
    setBusy(false);
    await Promise.all([
      queries.invalidateQueries({ queryKey: KEY }),
      queries.invalidateQueries({ queryKey: ["jobs"] }),
    ]);
  };
  return { busy, trouble, call };
}

function Job({ row, choices }: { row: Row; choices: Page["choices"] }) {
  const { busy, trouble, call } = useCall();
  const [fault, setFault] = useState("");
  const params = { path: { job_id: row.job_id } };
  const options = [["", "choose"] as const, ...choices.map((c) => [c.id, c.name] as const)];
  return (
    <Box as="section" aria-label={row.name} bg="panel" borderWidth="1px" borderColor="rule" p="4">
      <Flex justify="space-between" gap="3" wrap="wrap">
        <Heading as="h2" size="lg">
          <Link to={`/jobs/${row.job_id}`} style={{ textDecoration: "underline" }}>
            {row.name}
          </Link>
        </Heading>
        <Text fontSize="15px">
          {row.over ? (row.score.found ? `found, ${row.score.points} points` : "given up") : "open"}
        </Text>
      </Flex>
      <Text fontSize="15px">{row.story}</Text>
      {row.hints.map((words, k) => (
        <Text key={words} fontSize="14px" ps="2" borderLeftWidth="3px" borderColor="touch">
          Hint {k + 1}: {words}
        </Text>
      ))}
      {row.accused.length > 0 && (
        <Text fontSize="14px" color="faint">
          Accused: {row.accused.join("; ")}
        </Text>
      )}
      {row.over ? (
        <Text fontSize="15px" mt="1" fontWeight="600">
          {row.truth}
        </Text>
      ) : (
        <Box mt="2">
          <Flex gap="2" align="end" wrap="wrap">
            <Box flex="1" minW="14rem">
              <PlainChoice free label="What is wrong" value={fault} choices={options} choose={setFault} />
            </Box>
            <Act
              main
              off={busy || !fault}
              onClick={() =>
                void call(() => api.POST("/api/practice/{job_id}/accuse", { params, body: { fault } })).then(() =>
                  setFault(""),
                )
              }
            >
              That is it
            </Act>
          </Flex>
          <Flex gap="3" mt="2">
            <Act
              slight
              off={busy || row.more_hints === 0}
              onClick={() => void call(() => api.POST("/api/practice/{job_id}/hint", { params }))}
            >
              a hint ({row.more_hints} left)
            </Act>
            <Act
              slight
              off={busy}
              onClick={() => void call(() => api.POST("/api/practice/{job_id}/give-up", { params }))}
            >
              tell me
            </Act>
          </Flex>
          {row.accused.length > 0 && (
            <Text fontSize="14px" mt="1">
              {row.score.words}
            </Text>
          )}
        </Box>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
