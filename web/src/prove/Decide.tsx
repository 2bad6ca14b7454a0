import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { AskedReading, JobHead } from "../api/types";
import { useMay } from "../app/session";
import { evaluateAgain } from "../evaluation/useEvaluation";
import { Act } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { useRefreshLog } from "./useLog";

/** Accept with a reason, or send it back; logged either way. */
export function Decide({ job, reading }: { job: JobHead; reading: AskedReading }) {
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  const [reason, setReason] = useState("");
  if (reading.decision)
    return <Text>{reading.decision === "accept" ? "accepted with a reason" : "to be reworked"}</Text>;
  if (!reading.answer || reading.answer === "holds" || !may.decide) return <span />;
  const decide = async (choice: "accept" | "rework") => {
    const params = { path: { job_id: job.id } };
    await api.POST("/api/jobs/{job_id}/reasons", { params, body: { subject: reading.id, reason, choice } });
    await refresh();
    evaluateAgain();
  };
  return (
    <Box>
      <PlainWords label="Reason" value={reason} take={setReason} />
      <Flex gap="1" mt="1">
        <Act off={!reason.trim()} onClick={() => void decide("accept")}>
          Accept
        </Act>
        <Act off={!reason.trim()} onClick={() => void decide("rework")}>
          Rework
        </Act>
      </Flex>
    </Box>
  );
}
