import { Box, Flex, Text } from "@chakra-ui/react";
import type { components } from "../api/schema";

type Start = components["schemas"]["Start"];
export type Things = Start["in_the_way"];

const THINGS: readonly (readonly [Things[number], string])[] = [
  ["tank", "tank"],
  ["exhaust", "exhaust"],
  ["hoses", "brake hoses"],
  ["anti-roll-bar", "anti-roll bar"],
  ["engine", "engine or gearbox"],
  ["sump", "sump"],
  ["steering-box", "steering box or rack"],
  ["column", "column and shaft"],
];

/** What stands near the work; each is settled before the cut: placed and clear, or a word said on it. */
export function InTheWay({ things, take, fixed }: { things: Things; take: (next: Things) => void; fixed?: boolean }) {
  return (
    <Box as="fieldset" mt="2">
      <Text as="legend" fontSize="14px" color="faint">
        In the way of the work
      </Text>
      <Flex wrap="wrap" columnGap="4">
        {THINGS.map(([thing, words]) => (
          <Flex as="label" key={thing} gap="2" align="center" fontSize="14px" minH={{ base: "44px", md: "28px" }}>
            <input
              type="checkbox"
              className="tick"
              disabled={fixed}
              checked={things.includes(thing)}
              onChange={(e) => take(e.target.checked ? [...things, thing] : things.filter((t) => t !== thing))}
            />
            {words}
          </Flex>
        ))}
      </Flex>
    </Box>
  );
}
