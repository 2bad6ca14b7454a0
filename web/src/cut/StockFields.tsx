import { Box, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import type { JobHead } from "../api/types";
import { Act } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { messageOf } from "./useSearch";

/** The shop's plate thicknesses and cap heights, mm. */
export function StockFields({ job, caps: withCaps = true }: { job: JobHead; caps?: boolean }) {
  const queries = useQueryClient();
  const [plates, setPlates] = useState(job.shop.plate_stock_mm.join(" "));
  const [caps, setCaps] = useState(job.shop.cap_heights_mm.join(" "));
  const [trouble, setTrouble] = useState("");
  const changed = plates !== job.shop.plate_stock_mm.join(" ") || caps !== job.shop.cap_heights_mm.join(" ");
  const numbers = (text: string) =>
    text
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number);
  const keep = async () => {
    try {
      const body = { ...job.shop, plate_stock_mm: numbers(plates), cap_heights_mm: numbers(caps) };
      await api.PUT("/api/jobs/{job_id}/shop", { params: { path: { job_id: job.id } }, body });
      await queries.invalidateQueries({ queryKey: ["job", job.id] });
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Box mb="2">
      <PlainWords label="Plate in the rack, mm" value={plates} take={setPlates} />
      {withCaps && <PlainWords label="Cap heights to try, mm" value={caps} take={setCaps} />}
      {changed && <Act onClick={() => void keep()}>Keep this stock</Act>}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
