import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { keepShop } from "../bench/keepShop";
import { Act, PlainChoice } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { reasonOf } from "../prove/reason";

type Session = JobHead["shop"]["week"][number];
const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** When the shop works, week after week, and who is there. */
export function SessionRows({ job }: { job: JobHead }) {
  return <Rows key={job.shop_number} job={job} />;
}

function Rows({ job }: { job: JobHead }) {
  const stands = job.shop.week.map(typed);
  const [rows, setRows] = useState(stands);
  const [trouble, setTrouble] = useState("");
  const may = useMay();
  const changed = JSON.stringify(rows) !== JSON.stringify(stands);
  const put = (k: number, more: Partial<Typed>) => setRows(rows.map((r, i) => (i === k ? { ...r, ...more } : r)));
  const keep = async () => {
    try {
      await keepShop(job, { ...job.shop, week: rows.map(read) });
      setTrouble("");
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  return (
    <Box>
      {rows.map((row, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no name of their own
        <Flex key={k} gap="1" align="end" mb="1" role="group" aria-label={`Session ${k + 1}`}>
          <Box flex="1.25" minW="0">
            <PlainChoice
              label="Every"
              value={row.weekday}
              choices={DAYS.map((d) => [d, d.slice(0, 3)] as const)}
              choose={(weekday) => put(k, { weekday: weekday as Session["weekday"] })}
            />
          </Box>
          <Box flex="1" minW="0">
            <PlainWords label="From" value={row.start} take={(start) => put(k, { start })} />
          </Box>
          <Box flex="0.7" minW="0">
            <PlainWords label="Hours" value={row.hours} take={(hours) => put(k, { hours })} />
          </Box>
          <Box flex="1.4" minW="0">
            <PlainWords label="Who" value={row.who} take={(who) => put(k, { who })} />
          </Box>
          {may.design && <Act onClick={() => setRows(rows.filter((_, i) => i !== k))}>×</Act>}
        </Flex>
      ))}
      {rows.length === 0 && <Text fontSize="14px">Nobody works yet: add a session.</Text>}
      {may.design && (
        <Flex gap="2" mt="1">
          <Act onClick={() => setRows([...rows, { weekday: "Monday", start: "18:30", hours: "3", who: "one" }])}>
            Add a session
          </Act>
          {changed && (
            <Act main onClick={() => void keep()}>
              Keep these sessions
            </Act>
          )}
        </Flex>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}

type Typed = { weekday: Session["weekday"]; start: string; hours: string; who: string };

const typed = (s: Session): Typed => ({
  weekday: s.weekday,
  start: s.start,
  hours: String(Math.round((s.minutes / 60) * 100) / 100),
  who: s.who.join(", "),
});

/** As it was typed; throws what cannot be read. The core says what else is wrong. */
function read(row: Typed): Session {
  const hours = Number(row.hours.replace(",", "."));
  if (!Number.isFinite(hours) || !row.hours.trim()) throw new Error(`'${row.hours}' is no number of hours`);
  const start = row.start.trim().replace(".", ":");
  const who = row.who
    .split(",")
    .map((name) => name.trim())
    .filter(Boolean);
  const whole = /^\d:/.test(start) ? `0${start}` : start;
  return { weekday: row.weekday, start: whole, minutes: Math.max(0, Math.round(hours * 60)), who };
}
