import { Box, Flex, Text } from "@chakra-ui/react";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { seenDraft, useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { SessionRows } from "./SessionRows";
import { useSchedule, wallClock } from "./useSchedule";

const DAY = new Intl.DateTimeFormat(undefined, { weekday: "short", day: "numeric", month: "short", year: "numeric" });

/** A day as one says it. */
export const dayOf = (iso: string): string => DAY.format(new Date(iso.length === 10 ? `${iso}T12:00` : iso));

/** When it is done: the shop's sessions, the due day, and what the core makes of them. */
export function TimeGroup({ job }: { job: JobHead }) {
  const { optionId, act } = usePick("optionId", "act");
  const due = useBench((s) => seenDraft(s).design.timing?.due) ?? "";
  const { open, busy, found, over, trouble, show, work } = useSchedule();
  const may = useMay();
  const set = (value: string) => act({ kind: "set", path: ["design", "timing", "due"], value: value || null });
  return (
    <Group title="Time">
      <SessionRows job={job} />
      <Flex as="label" direction="column" fontSize="14px" maxW="12rem" mb="2">
        <Text as="span" color="faint">
          To be done by
        </Text>
        <input type="date" className="day" value={due} disabled={!may.design} onChange={(e) => set(e.target.value)} />
      </Flex>
      <Flex gap="2" wrap="wrap">
        <Act main off={busy} onClick={() => void work()}>
          {busy ? "Working it out" : found ? "Work it out again" : "Work out when"}
        </Act>
        {found && (
          <Act pressed={open} onClick={() => show(!open)}>
            {open ? "Back to the steps" : "The schedule"}
          </Act>
        )}
        {found && <FileLink href={`/api/options/${optionId}/plan.ics?at=${wallClock()}`} name="Calendar, ICS" />}
      </Flex>
      <Box role="status" fontSize="14px" mt="1">
        {over && "Nothing is left to do."}
        {found && (
          <>
            <Text>
              Done on <b>{dayOf(found.ends)}</b>, {found.ends.slice(11)}; one step after the other:{" "}
              {dayOf(found.in_list_order)}.{" "}
              {found.proved ? "No plan is earlier." : `No plan ends before ${dayOf(found.not_before)}.`}
            </Text>
            <Text>
              {Math.round(found.hours)} hours of hands are left ({Math.round(found.low_hours)} to{" "}
              {Math.round(found.high_hours)}), in {found.sessions.length} sessions.
            </Text>
            {found.due && (
              <Text color={found.late ? "removed" : undefined}>
                {found.late
                  ? `${found.late} steps do not fit before ${dayOf(found.due)}.`
                  : `It fits before ${dayOf(found.due)}.`}
              </Text>
            )}
          </>
        )}
      </Box>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Group>
  );
}
