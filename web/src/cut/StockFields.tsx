import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead, Style } from "../api/types";
import { keepShop } from "../bench/keepShop";
import { useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { parseTyped } from "../units/parse";
import { showThickness } from "../units/show";
import { messageOf } from "./useSearch";

/** The shop's plate thicknesses and cap heights, as its tape reads them, with semicolons between. */
export function StockFields({ job, caps = true }: { job: JobHead; caps?: boolean }) {
  const style = useBench((s) => s.style);
  return <Stock key={style} job={job} withCaps={caps} style={style} />;
}

function Stock({ job, withCaps, style }: { job: JobHead; withCaps: boolean; style: Style }) {
  const listed = (sizes: readonly number[]) => sizes.map((mm) => showThickness(mm, style)).join("; ");
  const [plates, setPlates] = useState(listed(job.shop.plate_stock_mm));
  const [caps, setCaps] = useState(listed(job.shop.cap_heights_mm));
  const [trouble, setTrouble] = useState("");
  const changed = plates !== listed(job.shop.plate_stock_mm) || caps !== listed(job.shop.cap_heights_mm);
  const sizes = (text: string) => {
    const read = text
      .split(";")
      .map((part) => part.trim())
      .filter(Boolean);
    const known = [...job.shop.plate_stock_mm, ...job.shop.cap_heights_mm];
    const found = read.map((part) => {
      // what nobody retyped stays what it is to the last digit
      const same = known.find((mm) => showThickness(mm, style) === part);
      return same === undefined ? parseTyped(part, "thickness", style) : { value: same };
    });
    return found.map((one) => {
      if ("message" in one) throw new Error(`'${one.text}': ${one.message}, ${one.acceptable}`);
      return one.value;
    });
  };
  const keep = async () => {
    try {
      const body = { ...job.shop, plate_stock_mm: sizes(plates), cap_heights_mm: sizes(caps) };
      await keepShop(job, body);
      setPlates(listed(body.plate_stock_mm));
      setCaps(listed(body.cap_heights_mm));
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Box mb="2">
      <PlainWords label="Plate in the rack" value={plates} take={setPlates} />
      {withCaps && <PlainWords label="Cap heights to try" value={caps} take={setCaps} />}
      {changed && <Act onClick={() => void keep()}>Keep this stock</Act>}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
