import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useMay } from "../app/session";
import { seenDraft, useBench } from "../draft/store";
import { Act, PlainChoice } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { PlainWords } from "../fields/plain";
import { dayOf } from "./TimeGroup";
import { type Planned, useSchedule } from "./useSchedule";

const OUTSIDE = ["painter", "powder coater", "machinist", "welder", "other"] as const;
type To = (typeof OUTSIDE)[number];

/** One step of the schedule: who does it, and what it waits for. */
export function StepWaits({ planned, close }: { planned: Planned; close: () => void }) {
  const timing = useBench((s) => seenDraft(s).design.timing) ?? { handouts: [], arrivals: [], due: null };
  const act = useBench((s) => s.act);
  const optionId = useBench((s) => s.optionId);
  const work = useSchedule((s) => s.work);
  const may = useMay();
  const own = timing.handouts.find((h) => h.step === planned.step);
  const arrival = timing.arrivals.find((a) => a.step === planned.step);
  const [to, setTo] = useState<To | "here">(own?.to ?? "here");
  const [days, setDays] = useState(String(own?.days ?? 7));
  const [what, setWhat] = useState(arrival?.what ?? "");
  const [on, setOn] = useState(arrival?.on ?? "");
  const [trouble, setTrouble] = useState("");
  const keep = () => {
    const whole = Number(days);
    if (to !== "here" && !(Number.isInteger(whole) && whole >= 1 && whole <= 120)) {
      setTrouble(`'${days}' is no number of days: 1 to 120`);
      return;
    }
    if (Boolean(what.trim()) !== Boolean(on)) {
      setTrouble(on ? "Say what comes on that day." : "Say on which day it comes.");
      return;
    }
    const others = timing.handouts.filter((h) => h.step !== planned.step);
    const rest = timing.arrivals.filter((a) => a.step !== planned.step);
    const handouts =
      to === "here" ? others : [...others, { step: planned.step, to, days: whole, note: own?.note ?? "" }];
    const arrivals = what.trim() ? [...rest, { what: what.trim(), step: planned.step, on }] : rest;
    act({ kind: "set", path: ["design", "timing"], value: { ...timing, handouts, arrivals } });
    setTrouble("");
    void work();
  };
  return (
    <Box p="2" bg="panel" borderWidth="1px" borderColor="rule">
      <Flex justify="space-between" gap="2">
        <Text fontWeight="600">
          {planned.title}
          {planned.side && `, ${planned.side}`}: {dayOf(planned.begins)}, {planned.begins.slice(11)}
        </Text>
        <Act onClick={close}>Close</Act>
      </Flex>
      {may.design && (
        <Flex gap="2" align="end" wrap="wrap">
          <PlainChoice
            label="Done by"
            value={to}
            choices={[
              ["here", "us, here"],
              ...OUTSIDE.map((o) => [o, o === "other" ? "somebody outside" : o] as const),
            ]}
            choose={(next) => setTo(next as To | "here")}
          />
          {to !== "here" && (
            <Box w="5rem">
              <PlainWords label="Days" value={days} take={setDays} />
            </Box>
          )}
          <Box w="11rem">
            <PlainWords label="Waits for a delivery of" value={what} take={setWhat} />
          </Box>
          <Flex as="label" direction="column" fontSize="14px">
            <Text as="span" color="faint">
              that comes on
            </Text>
            <input type="date" className="day" value={on} onChange={(e) => setOn(e.target.value)} />
          </Flex>
          <Act main onClick={keep}>
            Keep, and plan again
          </Act>
          {own && (
            <FileLink
              href={`/api/options/${optionId}/handout.pdf?step=${encodeURIComponent(planned.step)}`}
              name="Sheet to hand over, PDF"
            />
          )}
        </Flex>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}
