import { Flex, Text } from "@chakra-ui/react";
import { Big } from "./Big";
import { clockFace, dropTimer, useTimers } from "./clock";
import { FIRE_WATCH } from "./SignSheet";
import type { FloorStep } from "./types";
import type { Floor } from "./useFloor";

const FIRE = ". Look now: embers, undercoat, wiring, inside the rail";
const METAL = ". Read the metal now";

/** What runs now. A watch ends when somebody looked, not when the clock is down; a bead waits for the metal. */
export function Timers({ floor, step }: { floor: Floor; step: FloorStep }) {
  const timers = useTimers();
  const looked = (id: string) => {
    if (id === FIRE_WATCH) {
      void floor.write({ kind: "note", step: step.id, text: "Fire watch: looked, nothing smoulders" }, "Fire watch");
    }
    dropTimer(id);
  };
  return (
    <>
      {timers.map((t) => {
        const left = t.lasts === null ? null : t.lasts - t.ran;
        const due = left !== null && left <= 0;
        return (
          <Flex
            key={t.id}
            align="center"
            justify="space-between"
            gap="2"
            p="2"
            bg="sheet"
            borderLeftWidth="6px"
            borderColor={due ? "removed" : "touch"}
          >
            <Text fontSize="20px" lineHeight="1.2">
              {t.words}: <b>{clockFace(left ?? t.ran)}</b>
              {left === null && !t.running && ", paused"}
              {due && (t.id === FIRE_WATCH ? FIRE : METAL)}
            </Text>
            {left === null ? (
              <Big onClick={() => dropTimer(t.id)}>Off</Big>
            ) : (
              (due || t.id !== FIRE_WATCH) && (
                <Big onClick={() => looked(t.id)}>{t.id === FIRE_WATCH ? "Looked" : "It is warm, not hot"}</Big>
              )
            )}
          </Flex>
        );
      })}
    </>
  );
}
