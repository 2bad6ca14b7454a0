import { Flex, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import type { JobHead } from "../api/types";
import { keepShop } from "../bench/keepShop";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { PlainQuantity } from "../fields/plain";
import { type Gauge, useGauges } from "./useGauges";
import { useNest } from "./useNest";
import { usePatterns } from "./usePatterns";

/** What stands in, holds a distance or proves a line while the design is built. */
export function GaugeGroup({ job }: { job: JobHead }) {
  const { optionId, style } = usePick("optionId", "style");
  const { gauges, trouble, load } = useGauges();
  const draft = useBench((s) => s.history.now);
  // biome-ignore lint/correctness/useExhaustiveDependencies: gauges follow the draft, its units and the shop's blocks
  useEffect(() => void load(), [draft, style, job.shop_number]);
  const { rack } = job.shop;
  const keep = (block_mm: number) => void keepShop(job, { ...job.shop, rack: { ...rack, block_mm } });
  return (
    <Group title="Gauges and jigs">
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
      {gauges.length === 0 && <Text fontSize="14px">Nothing needs one yet.</Text>}
      {gauges.length > 0 && <FileLink href={`/api/options/${optionId}/gauges.csv`} name="List of gauges, CSV" />}
      {gauges.some((g) => g.kind === "spacer") && (
        <PlainQuantity label="One spacer block is high, measured" value={rack.block_mm ?? null} take={keep} />
      )}
      {gauges.length > 0 && (
        <details>
          <summary>What to make: {gauges.length}</summary>
          {gauges.map((gauge) => (
            <GaugeRow key={gauge.id} gauge={gauge} />
          ))}
        </details>
      )}
    </Group>
  );
}

/** One gauge: how many, to what size, what for; its shape where it is cut flat. */
export function GaugeRow({ gauge }: { gauge: Gauge }) {
  const look = usePatterns((s) => s.look);
  const show = useNest((s) => s.show);
  const own = gauge.pattern;
  return (
    <Flex direction="column" py="1.5" borderBottomWidth="1px" borderColor="rule" align="start">
      <Text fontSize="14px" fontWeight="600">
        {gauge.count > 1 && `${gauge.count} × `}
        {gauge.name}
        {gauge.side !== "both" && `, ${gauge.side}`}
      </Text>
      <Text fontSize="14px">
        {[gauge.size, gauge.made_of].filter(Boolean).join("; ")}. {gauge.says}
      </Text>
      {gauge.missing && (
        <Text fontSize="14px" color="removed">
          Not known: {gauge.missing}.
        </Text>
      )}
      {own && (
        <Act
          onClick={() => {
            show(null);
            look(own);
          }}
        >
          Show its shape
        </Act>
      )}
    </Flex>
  );
}
