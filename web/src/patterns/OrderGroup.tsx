import { Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import { useBench, usePick } from "../draft/store";
import { Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { showAmount } from "../units/tell";
import { NOTHING } from "./usePatterns";

type Order = components["schemas"]["OrderList"];

/** What to buy for the whole design, and the lists to cut to as files. */
export function OrderGroup() {
  const { jobId, optionId, style } = usePick("jobId", "optionId", "style");
  const draft = useBench((s) => s.history.now);
  const [order, setOrder] = useState<Order | null>(null);
  const [trouble, setTrouble] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list follows the draft and its unit system
  useEffect(() => {
    let over = false;
    const body = { job_id: jobId, ...draft, slim: false, sequence: 0, want: NOTHING };
    got(api.POST("/api/order", { body }))
      .then((next) => {
        if (over) return;
        setOrder(next);
        setTrouble("");
      })
      .catch((error: unknown) => !over && setTrouble(error instanceof Error ? error.message : "no order list"));
    return () => {
      over = true;
    };
  }, [draft, style]);
  const base = `/api/options/${optionId}/order`;
  return (
    <Group title="To order">
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
      {order && order.rows.length === 0 && <Text fontSize="14px">Nothing to buy yet.</Text>}
      {order && order.rows.length > 0 && (
        <>
          <Text fontSize="14px" mt="1">
            Plates, tube and weld metal together: {showAmount({ value: order.added_kg, kind: "mass" }, style)}; bolts
            not weighed.
          </Text>
          <Flex gap="2" wrap="wrap" mt="1">
            <FileLink href={`${base}.csv`} name="Order list, CSV" />
            <FileLink href={`${base}.xlsx`} name="With cut lists, XLSX" />
          </Flex>
          <details>
            <summary>What to buy: {order.rows.length} lines</summary>
            {order.rows.map((row) => (
              <Line key={`${row.what} ${row.words}`} row={row} />
            ))}
          </details>
        </>
      )}
    </Group>
  );
}

function Line({ row }: { row: Order["rows"][number] }) {
  return (
    <Flex gap="2" py="1" borderBottomWidth="1px" borderColor="rule">
      <Text fontSize="14px" fontWeight="600" minW="4.5rem">
        {row.amount}
      </Text>
      <Text fontSize="14px">
        {row.what}
        {row.in_rack === false && ", not in the rack"} <span className="row-tail">{row.words}</span>
      </Text>
    </Flex>
  );
}
