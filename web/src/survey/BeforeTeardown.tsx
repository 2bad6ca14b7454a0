import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { evaluateAgain, useShown } from "../evaluation/useEvaluation";
import { Act, Group } from "../fields/controls";
import { focusOn } from "../fields/focusOn";
import { PlainWords } from "../fields/plain";
import { useRefreshLog } from "../prove/useLog";

/** The readings that teardown destroys, and the lock that waits for them. */
export function BeforeTeardown({ job }: { job: JobHead }) {
  const result = useShown((s) => s.result);
  const missing = result?.before_teardown.filter((r) => !r.taken) ?? [];
  const locked = result?.teardown_locked ?? true;
  const overridden = !locked && missing.length > 0;
  return (
    <Group title="Before teardown">
      <Flex gap="2" align="center" p="2" bg="sheet" borderLeftWidth="4px" borderColor={locked ? "removed" : "added"}>
        <Text fontSize="14px">
          <b>{locked ? "Teardown is locked." : overridden ? "Released with a reason." : "Teardown is released."}</b>{" "}
          {missing.length > 0
            ? `${missing.length} ${missing.length > 1 ? "readings" : "reading"} cannot be taken once the vehicle is apart.`
            : "Every reading that teardown destroys is in."}
        </Text>
      </Flex>
      {missing.map((reading) => (
        <Flex
          key={reading.pointer}
          as="button"
          onClick={() => focusOn(reading.pointer)}
          width="100%"
          textAlign="start"
          py="1"
          px="1"
          gap="2"
          borderBottomWidth="1px"
          borderColor="rule"
        >
          <Box
            as="span"
            aria-hidden="true"
            borderWidth="1.5px"
            borderStyle="dashed"
            borderColor="faint"
            w="12px"
            h="12px"
            mt="1"
            flexShrink="0"
          />
          <Text fontSize="14px">
            {reading.name}: <span style={{ opacity: 0.75 }}>{reading.why}</span>
          </Text>
        </Flex>
      ))}
      {locked && <Release job={job} />}
    </Group>
  );
}

function Release({ job }: { job: JobHead }) {
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  const [reason, setReason] = useState("");
  const [trouble, setTrouble] = useState("");
  if (!may.decide) return null;
  const release = async () => {
    try {
      const params = { path: { job_id: job.id } };
      await api.POST("/api/jobs/{job_id}/reasons", { params, body: { subject: "teardown", reason } });
      await refresh();
      evaluateAgain();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : "not written");
    }
  };
  return (
    <Box mt="2">
      <PlainWords label="Release all the same, because" value={reason} take={setReason} />
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      <Box mt="1">
        <Act off={!reason.trim()} onClick={() => void release()}>
          Release and log the reason
        </Act>
      </Box>
    </Box>
  );
}
