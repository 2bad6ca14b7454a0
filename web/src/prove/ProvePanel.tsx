import { Box, Text } from "@chakra-ui/react";
import { useCatalogue } from "../api/catalogue";
import type { Check, JobHead } from "../api/types";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { shown } from "../margins/group";
import { HandCheckSheet } from "./HandCheckSheet";
import { LogList } from "./LogList";
import { TapeNetwork } from "./TapeNetwork";

/** Is what was welded what was planned, and what does it cost where it is not? */
export default function ProvePanel({ job }: { job: JobHead }) {
  const optionId = useBench((s) => s.optionId);
  const checks = useShown((s) => s.result?.checks ?? NONE);
  const costs = costsOf(checks);
  const style = useBench((s) => s.style);
  const words = useCatalogue();
  const read = useShown((s) => s.result?.readings.some((r) => r.value_mm !== null) ?? false);
  return (
    <>
      <Text fontSize="14px">
        Type what was measured beside its plan. Each reading goes into the same model as the design, on its own rail
        only.
      </Text>
      <Group title="What it costs">
        {!read && <Text fontSize="14px">Nothing measured yet.</Text>}
        {read && costs.length === 0 && <Text fontSize="14px">No margin is worse than planned.</Text>}
        {costs.map((cost) => (
          <Box key={cost.id} py="1" borderBottomWidth="1px" borderColor="rule" fontSize="14px">
            <Text>
              {cost.title}, {cost.side}
            </Text>
            <Text fontVariantNumeric="tabular-nums">
              {shown(cost.from, cost.unit, style, words)} → <b>{shown(cost.to, cost.unit, style, words)}</b>
              {cost.verdict === "fails" && ", fails"}
            </Text>
          </Box>
        ))}
      </Group>
      <TapeNetwork job={job} />
      <Group title="Report">
        <FileLink href={`/api/options/${optionId}/report.pdf`} name="PDF report" />
        <Text fontSize="13px" color="faint" mt="1">
          Drawings, checks with their basis, readings, decisions, cautions and the hash of what was evaluated.
        </Text>
      </Group>
      <HandCheckSheet />
      <LogList job={job} />
    </>
  );
}

type Cost = {
  id: string;
  title: string;
  side: string;
  from: number;
  to: number;
  unit: string;
  verdict: string;
};

/** Checks whose margin is worse as built than as planned, worst loss first. */
function costsOf(checks: readonly Check[]): Cost[] {
  const planned = new Map(checks.filter((c) => c.state === "planned").map((c) => [c.id, c]));
  return checks
    .filter((c) => c.state === "as-built")
    .flatMap((c) => {
      const plan = planned.get(c.id.replace("@as-built", ""));
      if (plan?.value == null || c.value === null || plan.margin === null || c.margin === null) return [];
      if (c.margin > plan.margin - 1e-4) return [];
      const side = c.id.split(":")[2]?.replace("@as-built", "") ?? "";
      return [
        {
          id: c.id,
          title: c.title,
          side,
          from: plan.value,
          to: c.value,
          unit: c.unit,
          verdict: c.verdict,
          loss: plan.margin - c.margin,
        },
      ];
    })
    .sort((a, b) => b.loss - a.loss);
}
