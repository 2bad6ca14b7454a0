import { Box, Flex, Text } from "@chakra-ui/react";
import { useCatalogue } from "../api/catalogue";
import type { Check, JobHead } from "../api/types";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { shown } from "../margins/group";
import { AfterGroup } from "./AfterGroup";
import { AsBuilt } from "./AsBuilt";
import { HandCheckSheet } from "./HandCheckSheet";
import { LogList } from "./LogList";
import { TapeNetwork } from "./TapeNetwork";
import { WeldRecordGroup } from "./WeldRecordGroup";

/** Is what was welded what was planned, and what does it cost where it is not? */
export default function ProvePanel({ job }: { job: JobHead }) {
  const optionId = useBench((s) => s.optionId);
  const checks = useShown((s) => s.result?.checks ?? NONE);
  const costs = costsOf(checks);
  const style = useBench((s) => s.style);
  const words = useCatalogue();
  const read = useShown((s) => s.result?.readings.some((r) => r.value !== null) ?? false);
  return (
    <>
      <Text fontSize="14px">
        Type what was measured beside its plan. Each reading goes into the same model as the design, on its own rail
        only.
      </Text>
      <Group title="What it costs">
        {!read && <Text fontSize="14px">Nothing measured yet.</Text>}
        {read && costs.length === 0 && <Text fontSize="14px">No margin is worse than planned.</Text>}
        {costs
          .map((cost) => ({
            cost,
            from: shown(cost.from, cost.unit, style, words),
            to: shown(cost.to, cost.unit, style, words),
          }))
          .filter(({ cost, from, to }) => from !== to || cost.verdict === "fails")
          .map(({ cost, from, to }) => (
            <Box key={cost.id} py="1" borderBottomWidth="1px" borderColor="rule" fontSize="14px">
              <Text>
                {cost.title}, {cost.side}
              </Text>
              <Text fontVariantNumeric="tabular-nums">
                {from} → <b>{to}</b>
                {cost.verdict === "fails" && ", fails"}
              </Text>
            </Box>
          ))}
      </Group>
      <AsBuilt />
      <TapeNetwork job={job} />
      <WeldRecordGroup job={job} />
      <Group title="Dossier">
        <Flex gap="2" wrap="wrap">
          <FileLink href={`/api/options/${optionId}/report.pdf`} name="Dossier, PDF" />
          <FileLink href={`/api/options/${optionId}/report.pdf?short=true`} name="For the inspector, 4 pages" />
          <FileLink href={`/api/options/${optionId}/dossier.zip`} name="Dossier with job file and photos" />
        </Flex>
        <Text fontSize="13px" color="faint" mt="1">
          Survey, drawings of both sides, sections, suspension, checks with their basis, hand-check, parts, welds, steps
          with signatures, as built, open points, places to sign; the hash of what was evaluated.
        </Text>
      </Group>
      <HandCheckSheet />
      <AfterGroup job={job} />
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

/** A margin that lost less than this is not told. */
const TOLD = 0.01;

/** Checks whose margin is worse as built than as planned, worst loss first. */
function costsOf(checks: readonly Check[]): Cost[] {
  const planned = new Map(checks.filter((c) => c.state === "planned").map((c) => [c.id, c]));
  return checks
    .filter((c) => c.state === "as-built")
    .flatMap((c) => {
      const plan = planned.get(c.id.replace("@as-built", ""));
      if (plan?.value == null || c.value === null || plan.margin === null || c.margin === null) return [];
      if (c.margin > plan.margin - TOLD) return [];
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
