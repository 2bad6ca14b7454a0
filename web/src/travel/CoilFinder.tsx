import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { FoundCoil } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act, Group, Pair } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { showLength } from "../units/show";

/** Rate, coil and upper mount from what is wanted. */
export function CoilFinder({ index }: { index: number }) {
  const { jobId, act, style } = usePick("jobId", "act", "style");
  const [frequency, setFrequency] = useState(1.3);
  const [used, setUsed] = useState(45);
  const [found, setFound] = useState<FoundCoil | null>(null);
  const [trouble, setTrouble] = useState("");
  const find = async () => {
    const { design, survey } = useBench.getState().history.now;
    const wish = { frequency_hz: frequency, used_percent: used };
    setFound(null);
    setTrouble("");
    try {
      const body = { job_id: jobId, design, survey, suspension: index, wish };
      setFound(await got(api.POST("/api/find/coilover", { body })));
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const use = () => {
    if (!found?.suspension) return;
    act({ kind: "set", path: ["design", "suspensions", index], value: found.suspension });
    setFound(null);
  };
  const raised = found?.raised_mm ?? 0;
  return (
    <Group title="Fit the coilover">
      <Pair>
        <PlainQuantity label="Ride frequency, Hz" value={frequency} take={setFrequency} kind="number" />
        <PlainQuantity label="Stroke used, %" value={used} take={setUsed} kind="number" />
      </Pair>
      <Act main onClick={() => void find()}>
        Fit it
      </Act>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {found && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          {found.suspension ? (
            <>
              <Text>
                <b>{found.rate_n_per_mm} N/mm</b>, coil {showLength(found.free_mm, style)} long, upper mount{" "}
                {Math.abs(raised) < 0.5
                  ? "where it is"
                  : `${showLength(Math.abs(raised), style)} ${raised > 0 ? "higher" : "lower"}`}
                : {found.frequency_hz.toFixed(2)} Hz, {found.used_percent.toFixed(0)} % of the stroke used.
              </Text>
              {found.fails.length > 0 ? (
                <Text>
                  <b>Not offered:</b> with it this still fails: {found.fails.join("; ")}.
                </Text>
              ) : (
                <Act main onClick={use}>
                  Use it
                </Act>
              )}
            </>
          ) : (
            <Text>{found.reason}.</Text>
          )}
        </Box>
      )}
    </Group>
  );
}
