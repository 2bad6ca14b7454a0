import { Box, Button, Flex, Menu, Portal } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import type { JobRow } from "../api/types";
import { Act } from "../fields/controls";
import { PlainWords } from "../fields/plain";

type Change = components["schemas"]["JobChange"];

/** Change a job in the list, and draw the list again. */
export function useJobChange() {
  const queries = useQueryClient();
  return async (job: JobRow, body: Change) => {
    await got(api.PATCH("/api/jobs/{job_id}", { params: { path: { job_id: job.id } }, body }));
    await queries.invalidateQueries({ queryKey: ["jobs"] });
  };
}

/** What may be done with a job as a whole. */
export function JobMenu({ job, trashed }: { job: JobRow; trashed: () => void }) {
  const queries = useQueryClient();
  const change = useJobChange();
  const [naming, setNaming] = useState<string | null>(null);
  const [noting, setNoting] = useState<string | null>(null);
  const acts: Record<string, () => Promise<void> | void> = {
    rename: () => setNaming(job.name),
    note: () => setNoting(job.note),
    template: () => change(job, { template: !job.template }),
    duplicate: async () => {
      await got(api.POST("/api/jobs/{job_id}/duplicate", { params: { path: { job_id: job.id } } }));
      await queries.invalidateQueries({ queryKey: ["jobs"] });
    },
    archive: () => change(job, { archived: !job.archived }),
    delete: async () => {
      await change(job, { deleted: true });
      trashed();
    },
  };
  if (naming !== null) {
    const rename = async (event?: FormEvent) => {
      event?.preventDefault();
      if (naming.trim()) await change(job, { name: naming.trim() });
      setNaming(null);
    };
    return (
      <Flex as="form" p="3" gap="2" align="end" onSubmit={(e) => void rename(e)}>
        <PlainWords label="Job's name" value={naming} take={setNaming} />
        <Act main onClick={() => void rename()}>
          Rename
        </Act>
      </Flex>
    );
  }
  if (noting !== null) {
    const note = async (event?: FormEvent) => {
      event?.preventDefault();
      await change(job, { note: noting.trim() });
      setNoting(null);
    };
    return (
      <Flex as="form" p="3" gap="2" align="end" onSubmit={(e) => void note(e)}>
        <PlainWords label="Note on the job" value={noting} take={setNoting} />
        <Act main onClick={() => void note()}>
          Keep
        </Act>
      </Flex>
    );
  }
  return (
    <Box p="2">
      <Menu.Root onSelect={({ value }) => void acts[value]?.()}>
        <Menu.Trigger asChild>
          <Button variant="ghost" size="sm" minW="40px" minH="40px" aria-label={`${job.name}: rename, copy, archive`}>
            ⋯
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="sheet" borderWidth="1px" borderColor="rule">
              <Menu.Item value="rename">Rename</Menu.Item>
              <Menu.Item value="note">Note</Menu.Item>
              <Menu.Item value="template">
                {job.template ? "No template any more" : "Keep as a template for others like it"}
              </Menu.Item>
              <Menu.Item value="duplicate">Duplicate, without its log</Menu.Item>
              <Menu.Item value="archive">{job.archived ? "Take out of the archive" : "Archive"}</Menu.Item>
              <Menu.Item value="delete">Delete</Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </Box>
  );
}
