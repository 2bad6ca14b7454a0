import { Text } from "@chakra-ui/react";
import type { AxleName } from "../api/types";
import { useMay } from "../app/session";
import { shownDraft, useBench } from "../draft/store";
import { Act, Group, Pair } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

const AXLES: readonly AxleName[] = ["front", "rear"];
const PATH = ["survey", "stops"] as const;

/** Where stock's own bump stops strike the rails: stock is judged on them, never on the plan's. */
export function StockStops() {
  const stops = useBench((s) => shownDraft(s).survey.stops ?? []);
  const act = useBench((s) => s.act);
  const station = useBench((s) => s.stationMm);
  const may = useMay();
  return (
    <Group title="Stock's bump stops">
      <Text fontSize="13px">
        Where they strike the rails. Without them stock is not compared when the stops are struck.
      </Text>
      {AXLES.map((axle) => {
        const at = stops.findIndex((stop) => stop.axle === axle);
        const add = () => act({ kind: "insert", path: PATH, value: { axle, x_mm: Math.round(station) } });
        return at >= 0 ? (
          <Pair key={axle}>
            <QuantityField label={`Stop ${axle}, behind front axle`} path={[...PATH, at, "x_mm"]} place />
            {may.design && <Act onClick={() => act({ kind: "remove", path: [...PATH, at] })}>Leave it out</Act>}
          </Pair>
        ) : (
          may.design && (
            <Act key={axle} onClick={add}>
              Give the {axle} stop
            </Act>
          )
        );
      })}
    </Group>
  );
}
