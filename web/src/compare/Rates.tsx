import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { keepShop } from "../bench/keepShop";
import { Act } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { beside } from "../units/figure";

/** What has a price: the field, its words beside millimetres and beside inches, and the core's unit that it is for. */
const FIELDS = [
  ["hour", "An hour", "An hour", ""],
  ["plate_kg", "A kilogram of plate", "A pound of plate", "kg"],
  ["weld_m", "A metre of weld", "A foot of weld", "m"],
] as const;

/** What the shop reckons with; without all three the cost is not computed. */
export function Rates({ job }: { job: JobHead }) {
  const may = useMay();
  const { style } = job.shop;
  const [rates, setRates] = useState(job.shop.rates ?? { currency: "units" });
  const change = (part: Partial<typeof rates>) => setRates((old) => ({ ...old, ...part }));
  const [trouble, setTrouble] = useState("");
  if (!may.design) return null;
  const keep = async () => {
    try {
      await keepShop(job, { ...job.shop, rates });
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
        {FIELDS.map(([field, metric, inch, unit]) => {
          const per = beside(1, unit, style).value;
          const rate = rates[field];
          return (
            <Box key={field} w="11rem">
              <PlainQuantity
                label={style === "mm" ? metric : inch}
                kind="number"
                value={rate == null ? null : rate / per}
                take={(value) => change({ [field]: value * per })}
              />
            </Box>
          );
        })}
        <Act onClick={() => void keep()}>Keep the rates</Act>
      </Flex>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
