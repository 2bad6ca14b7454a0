import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, got } from "../api/client";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { Act } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";

const FIELDS = [
  ["hour", "An hour"],
  ["plate_kg", "A kilogram of plate"],
  ["weld_m", "A metre of weld"],
] as const;

/** What the shop reckons with; without all three the cost is not computed. */
export function Rates({ job }: { job: JobHead }) {
  const queries = useQueryClient();
  const may = useMay();
  const [rates, setRates] = useState(job.shop.rates ?? { currency: "units" });
  // a press waits for what is still being read: it has to see the rates as they are then
  const latest = useRef(rates);
  const change = (part: Partial<typeof rates>) => {
    latest.current = { ...latest.current, ...part };
    setRates(latest.current);
  };
  const [trouble, setTrouble] = useState("");
  if (!may.design) return null;
  const keep = async () => {
    try {
      const params = { path: { job_id: job.id } };
      await got(api.PUT("/api/jobs/{job_id}/shop", { params, body: { ...job.shop, rates: latest.current } }));
      await queries.invalidateQueries({ queryKey: ["job", job.id] });
      setTrouble("");
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : "not kept");
    }
  };
  return (
    <Box mt="4" as="section" aria-label="Rates">
      <Text fontWeight="600">The shop's rates</Text>
      <Flex gap="3" align="end" wrap="wrap">
        <Box w="8rem">
          <PlainWords
            label="In"
            value={rates.currency ?? "units"}
            take={(currency) => change({ currency: currency.slice(0, 8) })}
          />
        </Box>
        {FIELDS.map(([field, label]) => (
          <Box key={field} w="11rem">
            <PlainQuantity
              label={label}
              kind="number"
              value={rates[field] ?? null}
              take={(value) => change({ [field]: value })}
            />
          </Box>
        ))}
        <Act onClick={() => void keep()}>Keep the rates</Act>
      </Flex>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
