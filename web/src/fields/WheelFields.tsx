import { Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { Wheel } from "../api/types";
import { messageOf } from "../cut/useSearch";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { Thing } from "../travel/Thing";
import { Pair, PlainChoice } from "./controls";
import { QuantityField } from "./QuantityField";

const FRESH: Wheel = { rim_width_mm: 165.1, offset_mm: 30, backspacing_mm: null, lip_mm: 12.7 };

/** A wheel by its rim's width and offset, or backspacing as it is measured lying on its face. */
export function WheelFields({ title, at, wheel }: { title: string; at: Path; wheel?: Wheel | null }) {
  const act = useBench((s) => s.act);
  const [trouble, setTrouble] = useState("");
  const by = wheel?.backspacing_mm != null ? "backspacing" : "offset";
  const choose = async (told: string) => {
    if (!wheel || told === by) return;
    setTrouble("");
    try {
      const face = await got(api.POST("/api/wheel", { body: wheel }));
      const value =
        told === "offset"
          ? { ...wheel, offset_mm: face.offset_mm, backspacing_mm: null }
          : { ...wheel, offset_mm: null, backspacing_mm: face.backspacing_mm };
      act({ kind: "set", path: at, value });
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Thing title={title} at={at} there={wheel != null} begin={() => act({ kind: "set", path: at, value: FRESH })}>
      <Pair>
        <QuantityField label="Rim, seat to seat" path={[...at, "rim_width_mm"]} />
        <PlainChoice
          label="Its face is told by"
          value={by}
          choices={[
            ["offset", "offset"],
            ["backspacing", "backspacing"],
          ]}
          choose={(told) => void choose(told)}
        />
      </Pair>
      <Pair>
        {by === "offset" ? (
          <QuantityField label="Offset, face outward" path={[...at, "offset_mm"]} />
        ) : (
          <QuantityField label="Backspacing" path={[...at, "backspacing_mm"]} />
        )}
        <QuantityField label="Lip beyond the seat" path={[...at, "lip_mm"]} />
      </Pair>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Thing>
  );
}
