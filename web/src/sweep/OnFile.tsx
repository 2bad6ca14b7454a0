import { Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { useBench } from "../draft/store";
import { showLength } from "../units/show";
import { useSweep } from "./useSweep";

/** The sweep that is kept with a stored revision: it stands in the report. */
export function OnFile() {
  const optionId = useBench((s) => s.optionId);
  const style = useBench((s) => s.style);
  const base = useBench((s) => s.base);
  // a sweep that just ended may have been kept
  const result = useSweep((s) => s.result);
  const { data } = useQuery({
    queryKey: ["kept sweep", optionId, base, result?.positions, result?.pairs.length],
    enabled: optionId > 0,
    queryFn: () => got(api.GET("/api/options/{option_id}/sweep", { params: { path: { option_id: optionId } } })),
  });
  if (!data) return null;
  const { kept } = data;
  if (!kept) {
    return (
      <Text fontSize="13px" color="faint" mb="2">
        No sweep of a stored revision is kept yet: save the revision and sweep it, and it stands in the report.
      </Text>
    );
  }
  const [worst] = kept.swept.pairs;
  const gap = worst?.gap_mm == null ? "far" : showLength(worst.gap_mm, style);
  return (
    <Text fontSize="13px" mb="2">
      Kept for the report: revision {kept.revision}, swept by {kept.by} on {kept.at.slice(0, 10)}.
      {worst && ` Worst: ${worst.moving} to ${worst.other}, ${gap}.`}
      {!kept.fresh && <b> The design has changed since.</b>}
    </Text>
  );
}
