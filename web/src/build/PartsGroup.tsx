import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api } from "../api/client";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { usePick } from "../draft/store";
import { evaluateAgain, NONE, useShown } from "../evaluation/useEvaluation";
import { Act, Group } from "../fields/controls";
import { reasonOf } from "../prove/reason";
import { useRefreshLog } from "../prove/useLog";

/** Parts that set a size: each in hand, the right one and measured, before metal is cut. */
export function PartsGroup({ job }: { job: JobHead }) {
  const parts = useShown((s) => s.result?.parts_needed ?? NONE);
  const { optionId } = usePick("optionId");
  const refresh = useRefreshLog(job.id);
  const may = useMay();
  const [trouble, setTrouble] = useState("");
  const here = parts.filter((p) => p.here).length;
  if (parts.length === 0) return null;
  const say = async (part: string, is: boolean) => {
    try {
      const params = { path: { option_id: optionId } };
      await api.POST("/api/options/{option_id}/floor", {
        params,
        body: { done_at: "", act: { kind: "part", part, here: is, text: "" } },
      });
      await refresh();
      setTrouble("");
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  return (
    <Group title={`Parts in hand, ${here} of ${parts.length}`}>
      <Text fontSize="14px">
        {here === parts.length
          ? "Every part that sets a size is here and was measured."
          : "Nothing is cut before these are here, the right ones, and measured."}
      </Text>
      {parts.map((p) => (
        <Flex key={p.key} justify="space-between" gap="2" align="start" py="1" borderTopWidth="1px" borderColor="rule">
          <Box fontSize="14px">
            <b>{p.name}</b>: {p.read}
            {p.here && (
              <Text color="faint">
                in hand, {p.said_by}, {p.said_at.slice(0, 10)}
              </Text>
            )}
          </Box>
          {may.log && (
            <Act pressed={p.here} onClick={() => void say(p.key, !p.here)}>
              {p.here ? "✓ here" : "In hand, measured"}
            </Act>
          )}
        </Flex>
      ))}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Group>
  );
}
