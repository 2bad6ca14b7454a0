import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import { useBench, usePick } from "../draft/store";
import { reasonOf } from "./reason";
import { useRefreshLog } from "./useLog";

type Act = components["schemas"]["FloorBody"]["act"];

/** Every joint of the draft with what was written of it, and the way to write. */
export function useRecord(jobId: number) {
  const { optionId, history } = usePick("optionId", "history");
  const queries = useQueryClient();
  const refreshLog = useRefreshLog(jobId);
  const [trouble, setTrouble] = useState("");
  const key = ["record", optionId];
  const found = useQuery({
    queryKey: [...key, history.now.design],
    queryFn: () => {
      const { design, survey } = useBench.getState().history.now;
      return got(api.POST("/api/record", { body: { job_id: jobId, design, survey } }));
    },
  });
  const later = useQuery({
    queryKey: ["after", optionId, history.now.design],
    queryFn: () => {
      const { design, survey } = useBench.getState().history.now;
      return got(api.POST("/api/after", { body: { job_id: jobId, design, survey } }));
    },
  });
  const write = async (act: Act): Promise<boolean> => {
    const params = { path: { option_id: optionId } };
    try {
      await api.POST("/api/options/{option_id}/floor", { params, body: { done_at: "", act } });
      await Promise.all([
        queries.invalidateQueries({ queryKey: key }),
        queries.invalidateQueries({ queryKey: ["after"] }),
        refreshLog(),
      ]);
      setTrouble("");
      return true;
    } catch (error) {
      setTrouble(reasonOf(error));
      return false;
    }
  };
  return { record: found.data, later: later.data, write, trouble };
}
