import { Box, Flex, Text } from "@chakra-ui/react";
import { paint } from "../app/theme";
import { shownDraft, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { showLength } from "../units/show";
import { nearest } from "./scale";

/** The one control of everything that moves: bump and droop of the axle, with the place of first touch. */
export function TravelBar() {
  const { side, travelMm, style, put } = useBench();
  const targets = useBench((s) => shownDraft(s).design.targets);
  const axle = useShown((s) => s.result?.axle.find((a) => a.side === side));
  if (!axle) {
    return (
      <Text px="3" py="2" fontSize="14px" color="faint">
        The axle does not move yet: wheelbase, tube diameter and tube-to-rail gap are missing in the survey.
      </Text>
    );
  }
  const [low, high] = [axle.travel_mm[0] ?? 0, axle.travel_mm.at(-1) ?? 0];
  const row = nearest(travelMm, axle.travel_mm);
  const clear = axle.clearance_mm[row] ?? 0;
  const share = (mm: number) => `${((mm - low) / (high - low)) * 100}%`;
  const marks = [
    { at: -targets.droop_mm, name: "droop", colour: "faint" as const },
    { at: 0, name: "ride height", colour: "ink" as const },
    { at: targets.bump_mm, name: "full bump", colour: "ink" as const },
    ...(axle.touch_mm === null ? [] : [{ at: axle.touch_mm, name: "touches", colour: "touch" as const }]),
  ];
  const words =
    travelMm === 0
      ? "ride height"
      : `${showLength(Math.abs(travelMm), style)} ${travelMm > 0 ? "bump" : "droop"}`;
  return (
    <Flex px="3" pt="1" gap="4" align="center" bg="panel" borderBottomWidth="1px" borderColor="rule">
      <Box flex="1" position="relative" pb="14px" pt="2px" ms="10px" me="10px">
        <input
          type="range"
          aria-label="Axle travel"
          aria-valuetext={words}
          min={low}
          max={high}
          step={2}
          value={travelMm}
          onChange={(e) => put({ travelMm: Number(e.target.value) })}
          style={{
            width: "calc(100% + 16px)",
            marginLeft: -8,
            accentColor: paint("chalk"),
            height: 28,
            display: "block",
          }}
        />
        {marks.map((mark) => (
          <Box
            key={mark.name}
            position="absolute"
            left={share(mark.at)}
            top={mark.name === "touches" ? "-6px" : "22px"}
            transform="translateX(-50%)"
            pointerEvents="none"
          >
            <Box w="2px" h="6px" bg={mark.colour} mx="auto" />
            <Text fontSize="12px" lineHeight="1" color={mark.colour} whiteSpace="nowrap">
              {mark.name}
            </Text>
          </Box>
        ))}
      </Box>
      <Box minW="11.5rem" fontSize="14px" fontVariantNumeric="tabular-nums" lineHeight="1.25">
        <Text fontWeight="600">{words}</Text>
        <Text color={clear < axle.needed_mm ? "touch" : "faint"}>
          {clear < 0
            ? `${showLength(-clear, style)} into metal`
            : `${showLength(clear, style)} clear, ${side}`}
        </Text>
      </Box>
    </Flex>
  );
}
