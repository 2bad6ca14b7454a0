import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { paint } from "../app/theme";
import { useSize } from "../drawing/useSize";
import { StepWaits } from "./StepWaits";
import { dayOf } from "./TimeGroup";
import { type Planned, type Schedule, useSchedule } from "./useSchedule";

const ROW = 24;
const NAMES = 260;
const HEAD = 44;
const LEAST_SESSION = 84;

/** Bars by session: what is done when, what the end waits for, what comes too late. */
export function ScheduleView() {
  const found = useSchedule((s) => s.found);
  const [chosen, setChosen] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  if (!found) return null;
  const step = found.steps.find((s) => s.step === chosen);
  return (
    <Flex direction="column" height="100%" minH="0" p="4" gap="2">
      <Heading fontSize="24px">When it is done</Heading>
      <Text fontSize="14px">
        Filled bars: the end waits for them. Open bars have room. Cross-hatched: after the due day. Press a step to say
        what it waits for.
      </Text>
      {step && <StepWaits key={step.step} planned={step} close={() => setChosen(null)} />}
      <Box ref={box} flex="1" minH="12rem" overflow="auto" borderWidth="1px" borderColor="rule" bg="sheet">
        <Bars found={found} wide={size.width} chosen={chosen} pick={setChosen} />
      </Box>
    </Flex>
  );
}

function Bars(props: { found: Schedule; wide: number; chosen: string | null; pick: (step: string) => void }) {
  const { found, wide, chosen, pick } = props;
  const each = Math.max(LEAST_SESSION, (wide - NAMES - 20) / Math.max(found.sessions.length, 1));
  const at = placesOf(found, each);
  const steps = found.steps.toSorted((a, b) => a.begins.localeCompare(b.begins));
  const across = NAMES + each * found.sessions.length;
  const high = HEAD + steps.length * ROW + 8;
  return (
    <svg width={across + 12} height={high} role="img" aria-label="Schedule, a bar a step, a column a session">
      <title>Schedule</title>
      <defs>
        <pattern id="late" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="6" stroke={paint("removed")} strokeWidth="3" />
        </pattern>
      </defs>
      {found.sessions.map((s, k) => (
        <g key={s.begins}>
          <line x1={NAMES + k * each} x2={NAMES + k * each} y1={0} y2={high} stroke={paint("rule")} strokeWidth={1} />
          <text x={NAMES + k * each + 4} y={16} style={{ fontSize: 12 }} fill={paint("ink")}>
            {dayOf(s.begins).replace(/,? \d{4}$/, "")}
          </text>
          <text x={NAMES + k * each + 4} y={32} style={{ fontSize: 12 }} fill={paint("faint")}>
            {s.begins.slice(11)}, {s.who.length === 1 ? "one" : s.who.length}
          </text>
        </g>
      ))}
      {steps.map((p, row) => {
        const y = HEAD + row * ROW;
        const [x0, x1] = at(p);
        return (
          <g
            key={p.step}
            role="button"
            tabIndex={0}
            aria-pressed={chosen === p.step}
            aria-label={told(p)}
            onClick={() => pick(p.step)}
            onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && pick(p.step)}
            style={{ cursor: "pointer" }}
          >
            <rect x={0} y={y} width={across} height={ROW} fill={chosen === p.step ? paint("panel") : "transparent"} />
            <text x={6} y={y + 16} style={{ fontSize: 13 }} fill={paint("ink")}>
              {short(p)}
            </text>
            <rect
              x={x0}
              y={y + 4}
              width={Math.max(x1 - x0, 4)}
              height={ROW - 9}
              fill={p.late ? "url(#late)" : p.critical ? paint("chalk") : paint("panel")}
              stroke={paint(p.late ? "removed" : p.critical ? "chalk" : "faint")}
              strokeDasharray={p.handout ? "4 3" : undefined}
              strokeWidth={1.5}
            />
          </g>
        );
      })}
    </svg>
  );
}

/** Where a step's bar begins and ends: nights are left out, sessions stand side by side. */
function placesOf(found: Schedule, each: number): (p: Planned) => [number, number] {
  const times = found.sessions.map((s) => [Date.parse(s.begins), Date.parse(s.ends)] as const);
  const place = (iso: string, last: boolean) => {
    const when = Date.parse(iso);
    const k = times.findIndex(([, end]) => (last ? when <= end : when < end));
    if (k < 0) return NAMES + times.length * each;
    const [begin, end] = times[k] ?? [when, when + 1];
    return NAMES + k * each + Math.max(0, Math.min(1, (when - begin) / (end - begin))) * each;
  };
  return (p) => [place(p.begins, false), place(p.ends, true)];
}

const short = (p: Planned): string => {
  const whole = p.side && p.side !== "both" ? `${p.title}, ${p.side}` : p.title;
  return whole.length > 38 ? `${whole.slice(0, 37)}…` : whole;
};

const told = (p: Planned): string =>
  `${p.title}${p.side ? `, ${p.side}` : ""}: ${dayOf(p.begins)} ${p.begins.slice(11)} to ${p.ends.slice(11)}, ${p.minutes} minutes${p.critical ? ", the end waits for it" : ""}${p.late ? ", after the due day" : ""}`;
