import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { useBench } from "../draft/store";

/** What the draft's readings are good for: asked again when they change. */
export function useFirstAnswer(wanted: boolean) {
  const jobId = useBench((s) => s.jobId);
  const { design, survey } = useBench((s) => s.history.now);
  return useQuery({
    queryKey: ["first-answer", jobId, design, survey],
    enabled: wanted,
    placeholderData: (old) => old,
    queryFn: () => got(api.POST("/api/first-answer", { body: { job_id: jobId, design, survey } })),
    retry: false,
  }).data;
}
