import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { api, got, save } from "../api/client";
import type { components } from "../api/schema";
import type { JobHead } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { PlainQuantity } from "../fields/plain";
import type { Kind } from "../units/show";
import { showAmount } from "../units/tell";
import { keepRack } from "./RackFields";
import { StockFields } from "./StockFields";
import { type NestPlan, useOwnNest } from "./useNest";

type Order = components["schemas"]["OrderList"];
type Answer = components["schemas"]["YardAnswer"];

/** What to buy for the whole design, and the lists to cut to as files. */
export function OrderGroup({ job }: { job: JobHead }) {
  const { jobId, optionId, style } = usePick("jobId", "optionId", "style");
  const draft = useBench((s) => s.history.now);
  const nested = useOwnNest();
  const fresh = nested?.of.draft === draft && nested.of.rack === job.shop.rack;
  const plan = fresh ? nested.plan : null;
  const [order, setOrder] = useState<Order | null>(null);
  const [trouble, setTrouble] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list follows the draft and its unit system
  useEffect(() => {
    let over = false;
    const body = { job_id: jobId, ...draft, plan };
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
  }, [draft, style, job.shop_number, plan]);
  const base = `/api/options/${optionId}/order`;
  /** The list with its plates as they were laid out: the files go by the same sheets as the screen. */
  const file = (kind: "csv" | "xlsx", laidOut: NestPlan) =>
    save(`${base}.${kind}`, { plan: laidOut }).catch((error: unknown) => setTrouble(messageOf(error)));
  return (
    <Group title="To order">
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
      <StockFields job={job} />
      {order && order.rows.length === 0 && <Text fontSize="14px">Nothing to buy yet.</Text>}
      {order && order.rows.length > 0 && (
        <>
          <Text fontSize="14px" mt="1">
            Plates, tube and weld metal together: {showAmount({ value: order.added_kg, kind: "mass" }, style)}; bolts
            not weighed.
          </Text>
          {order.price > 0 && (
            <Text fontSize="14px">
              {order.price} {job.shop.rates.currency} for what has a price; {order.unpriced} lines have none.
            </Text>
          )}
          <Flex gap="2" wrap="wrap" mt="1">
            {plan ? (
              <>
                <Act onClick={() => void file("csv", plan)}>Order list, CSV</Act>
                <Act onClick={() => void file("xlsx", plan)}>With cut lists, XLSX</Act>
              </>
            ) : (
              <>
                <FileLink href={`${base}.csv`} name="Order list, CSV" />
                <FileLink href={`${base}.xlsx`} name="With cut lists, XLSX" />
              </>
            )}
          </Flex>
          {order.tubes.length > 0 && <TubeCut job={job} order={order} />}
          <Yard plan={plan} />
          <details>
            <summary>What to buy: {order.rows.length} lines</summary>
            {order.rows.map((row) => (
              <Line key={`${row.what} ${row.key || row.words}`} row={row} job={job} />
            ))}
          </details>
        </>
      )}
    </Group>
  );
}

/** Once the tube is cut, what is left of it stands in the rack. */
function TubeCut({ job, order }: { job: JobHead; order: Order }) {
  const [told, setTold] = useState("");
  const { rack } = job.shop;
  const keep = async () => {
    try {
      await keepRack(job, { ...rack, tubes: order.rack_after });
      setTold("");
    } catch (error) {
      setTold(messageOf(error));
    }
  };
  return (
    <Box mt="2">
      <Act hint="once it is cut as the list says" onClick={() => void keep()}>
        Tube is cut: keep what is left
      </Act>
      {told && (
        <Text role="alert" color="removed" fontSize="14px">
          {told}
        </Text>
      )}
    </Box>
  );
}

/** The order as the steel yard answers it. */
function Yard({ plan }: { plan: NestPlan | null }) {
  const jobId = useBench((s) => s.jobId);
  const draft = useBench((s) => s.history.now);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [trouble, setTrouble] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: an answer is to the list that was sent
  useEffect(() => setAnswer(null), [draft, plan]);
  const send = async () => {
    try {
      setAnswer(await got(api.POST("/api/yard/order", { body: { job_id: jobId, ...draft, plan } })));
      setTrouble("");
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : "the yard does not answer");
    }
  };
  return (
    <>
      <Flex mt="2">
        <Act hint="a simulated one ships with Nodulant" onClick={() => void send()}>
          Send it to the steel yard
        </Act>
      </Flex>
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
      {answer && (
        <details open>
          <summary>
            Answer {answer.number}: {answer.total} {answer.currency}, all there in{" "}
            {answer.days === 1 ? "1 day" : `${answer.days} days`}
          </summary>
          {answer.lines.map((line) => (
            <Text key={line.what} fontSize="14px" py="1" borderBottomWidth="1px" borderColor="rule">
              {line.amount} {line.what}: {line.price ?? "no price"}
              {line.words && <span className="row-tail"> {line.words}</span>}
            </Text>
          ))}
        </details>
      )}
    </>
  );
}

function Line({ row, job }: { row: Order["rows"][number]; job: JobHead }) {
  return (
    <Box py="1" borderBottomWidth="1px" borderColor="rule" fontSize="14px">
      <Flex gap="2" align="flex-start">
        <Text fontWeight="600" minW="4.5rem">
          {row.amount}
        </Text>
        <Text flex="1">
          {row.what}
          {row.in_rack === false && ", not in the rack"}
          {row.in_rack && row.section === "tube" && ", in the rack"}
          {row.price != null && `, costs ${row.price}`}
        </Text>
        {row.key && <OnShelf row={row} job={job} />}
      </Flex>
      <span className="row-tail">{row.words}</span>
    </Box>
  );
}

const KINDS: Partial<Record<Order["rows"][number]["unit"], Kind>> = { kg: "mass", mm: "length" };
/** Gas and painted areas beside millimetres and beside inches, and what one of the latter is of the former. */
const BULK: Partial<Record<Order["rows"][number]["unit"], { metric: string; inch: string; one: number }>> = {
  m3: { metric: "m³", inch: "ft³", one: 0.3048 ** 3 },
  m2: { metric: "m²", inch: "ft²", one: 0.3048 ** 2 },
};

/** How much of it lies on the shop's shelf; what is bought is the rest. */
function OnShelf({ row, job }: { row: Order["rows"][number]; job: JobHead }) {
  const [trouble, setTrouble] = useState("");
  const style = useBench((s) => s.style);
  const { rack } = job.shop;
  const bulk = BULK[row.unit];
  const one = bulk && style !== "mm" ? bulk.one : 1;
  const unit = bulk?.[style === "mm" ? "metric" : "inch"];
  const keep = async (quantity: number) => {
    const others = (rack.shelf ?? []).filter((item) => item.key !== row.key);
    const shelf = quantity > 0 ? [...others, { key: row.key ?? "", quantity }] : others;
    try {
      await keepRack(job, { ...rack, shelf });
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Box w="6rem" flexShrink="0">
      <PlainQuantity
        label={`On the shelf${unit ? `, ${unit}` : ""}: ${row.what}`}
        hideLabel
        kind={KINDS[row.unit] ?? "number"}
        value={row.on_shelf ? row.on_shelf / one : null}
        take={(quantity) => void keep(quantity * one)}
        hint={unit ? `shelf, ${unit}` : "shelf"}
      />
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
    </Box>
  );
}
