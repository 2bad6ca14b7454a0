import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";

/** The job's log, newest last. */
export function useLog(jobId: number) {
  return useQuery({
    queryKey: ["log", jobId],
    queryFn: () => got(api.GET("/api/jobs/{job_id}/log", { params: { path: { job_id: jobId } } })),
  });
}

/** Ask for the log again after something was written to it. */
export function useRefreshLog(jobId: number): () => Promise<void> {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: ["log", jobId] });
}
