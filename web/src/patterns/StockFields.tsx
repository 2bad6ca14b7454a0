import { Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead, Style } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench } from "../draft/store";
import { Act, Pair } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { keepRack } from "./RackFields";
import { type MetalRack, priceOf, tubesOf, tubeText } from "./stockText";

const PRICES = [
  ["tube_kg", "Tube, a kilogram"],
  ["bolt", "A bolt"],
  ["wire_kg", "Wire, a kilogram"],
  ["gas_m3", "Gas, a cubic metre"],
  ["primer_m2", "Primer, a square metre"],
  ["disc", "A disc"],
  ["drill", "A drill or saw"],
] as const;

/** Tube that stands in the rack, and what things cost: the order list goes by them. */
export function StockFields({ job }: { job: JobHead }) {
  const style = useBench((s) => s.style);
  return <Fields key={`${style} ${job.shop_number}`} job={job} rack={job.shop.rack} style={style} />;
}

function Fields({ job, rack, style }: { job: JobHead; rack: MetalRack; style: Style }) {
  const known = rack.tubes ?? [];
  const stands = {
    tubes: known.map((tube) => tubeText(tube, style)).join("; "),
    ...Object.fromEntries(PRICES.map(([name]) => [name, rack.prices?.[name]?.toString() ?? ""])),
  } as Record<string, string>;
  const [typed, setTyped] = useState(stands);
  const [trouble, setTrouble] = useState("");
  const changed = Object.keys(stands).some((name) => typed[name] !== stands[name]);
  const keep = async () => {
    try {
      const prices = Object.fromEntries(PRICES.map(([name]) => [name, priceOf(typed[name] ?? "")]));
      await keepRack(job, { ...rack, tubes: tubesOf(typed.tubes ?? "", style, known), prices });
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const field = (name: string, label: string) => (
    <PlainWords
      key={name}
      label={label}
      value={typed[name] ?? ""}
      take={(text) => setTyped({ ...typed, [name]: text })}
    />
  );
  return (
    <details>
      <summary>Tube in the rack, and prices</summary>
      {field("tubes", "Tube, outside x wall x length; next")}
      {[0, 2, 4].map((k) => (
        <Pair key={k}>{PRICES.slice(k, k + 2).map(([name, label]) => field(name, label))}</Pair>
      ))}
      {PRICES.slice(6).map(([name, label]) => field(name, label))}
      {changed && (
        <Act main onClick={() => void keep()}>
          Keep tube and prices
        </Act>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </details>
  );
}
