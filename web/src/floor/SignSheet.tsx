import { Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { Big, Line, Over } from "./Big";
import { dropTimer, startTimer, useTimers } from "./clock";
import { Keypad } from "./Keypad";
import type { FloorStep, Signing } from "./types";
import type { Floor } from "./useFloor";

export const FIRE_WATCH = "fire-watch";

/** Sign a step: its reading, that its hold point holds, how long it took. */
export function SignSheet({ floor, step, close }: { floor: Floor; step: FloorStep; close: () => void }) {
  const timer = useTimers().find((t) => t.id === step.id);
  const [reading, setReading] = useState<Signing["reading"]>(null);
  const [minutes, setMinutes] = useState<number | null>(timer ? Math.max(1, Math.round(timer.ran / 60)) : null);
  const [note, setNote] = useState("");
  if (step.reading && !reading) {
    return (
      <Over title={step.hold} close={close}>
        <Keypad
          asked={step.reading}
          style={floor.sheet.style}
          instruments={floor.sheet.instruments}
          take={setReading}
        />
      </Over>
    );
  }
  const sign = () => {
    void floor.write({ kind: "sign", step: step.id, reading, minutes, note: note.trim() }, named(step));
    dropTimer(step.id);
    if (step.burns) startTimer(FIRE_WATCH, "Fire watch", 60 * floor.sheet.fire_watch_min);
    close();
  };
  const add = (more: number) => setMinutes(Math.max(0, (minutes ?? 0) + more) || null);
  return (
    <Over title={`Sign: ${named(step)}`} close={close}>
      {step.hold && (
        <Text fontSize="24px" fontWeight="600" lineHeight="1.2">
          {step.hold}
          {reading && `: ${reading.text}`}
        </Text>
      )}
      <Text fontSize="20px" aria-live="polite">
        {minutes === null
          ? "How long it took, if you know"
          : `It took ${minutes} ${minutes === 1 ? "minute" : "minutes"}`}
      </Text>
      <Flex gap="2" wrap="wrap">
        {[-5, 5, 15, 60].map((more) => (
          <Big
            key={more}
            grow
            onClick={() => add(more)}
            label={`${more > 0 ? "plus" : "minus"} ${Math.abs(more)} minutes`}
          >
            {more > 0 ? `+${more}` : `−${-more}`}
          </Big>
        ))}
      </Flex>
      <Line label="Note, if any" value={note} take={setNote} />
      <Big kind="main" onClick={sign}>
        {step.hold ? "It holds: sign" : "Done: sign"}
      </Big>
    </Over>
  );
}

/** A step by its title and its side. */
export const named = (step: FloorStep): string => (step.side ? `${step.title}, ${step.side}` : step.title);
