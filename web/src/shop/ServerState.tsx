import { Box, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { Act, Group } from "../fields/controls";
import { useCall } from "./useCall";
import { WHEN } from "./when";

/** How the server is: copies of everything, room on the disk, workers. */
export function ServerState() {
  const found = useQuery({ queryKey: ["server"], queryFn: () => got(api.GET("/api/server")) });
  const { call, trouble } = useCall(["server", "audit"]);
  const state = found.data;
  if (!state) return null;
  const away = state.workers.filter((worker) => !worker.there);
  return (
    <Box>
      {state.missing && (
        <Text role="alert" color="removed" mb="3">
          {state.missing}
        </Text>
      )}
      <Group title="Copies">
        {state.database === "sqlite" ? (
          <>
            <Text>
              {state.backup_at
                ? `The last good copy is of ${WHEN.format(new Date(state.backup_at))}.`
                : "No copy was made yet."}
            </Text>
            {state.backup_trouble && (
              <Text role="alert" color="removed">
                The last try failed: {state.backup_trouble}
              </Text>
            )}
            <Text fontSize="14px" color="faint" mb="2">
              In {state.folder}. Bring them to another machine as well: a copy on the same disk dies with it.
            </Text>
            <Act onClick={() => void call(() => got(api.POST("/api/server/backup")))}>Make a copy now</Act>
            {trouble && <Text role="alert">{trouble}</Text>}
            <Box as="ul" mt="2" fontSize="14px" listStyle="none">
              {state.copies.map((copy) => (
                <li key={copy.name}>
                  {copy.name}, {copy.mb} MB
                </li>
              ))}
            </Box>
          </>
        ) : (
          <Text>This database is copied with its own tools.</Text>
        )}
      </Group>
      <Group title="The machine">
        <Text>{state.revisions} revisions are stored.</Text>
        <Text>{(state.free_mb / 1000).toFixed(1)} GB are free on its disk.</Text>
        {state.workers.length > 0 && (
          <Text color={away.length ? "removed" : undefined}>
            {away.length === 0
              ? `${state.workers.length} workers are there for searches and papers.`
              : `${away.length} of ${state.workers.length} workers do not answer: searches and papers wait.`}
          </Text>
        )}
      </Group>
    </Box>
  );
}
