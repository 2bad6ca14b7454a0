import { Box, Flex, Text } from "@chakra-ui/react";
import { useMay } from "../app/session";
import { shownDraft, useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";

const ELEMENTS = [
  ["c", "C"],
  ["mn", "Mn"],
  ["cr", "Cr"],
  ["mo", "Mo"],
  ["v", "V"],
  ["ni", "Ni"],
  ["cu", "Cu"],
] as const;

/** The rail steel's analysis, percent, where a certificate or a spectrometer says it: it decides the preheat. */
export function AnalysisFields() {
  const { side, act } = usePick("side", "act");
  const there = useBench((s) => shownDraft(s).survey.rails[side].analysis != null);
  const may = useMay();
  const path = ["survey", "rails", side, "analysis"] as const;
  const turn = () =>
    act({ kind: "set", path, value: there ? null : { c: 0.2, mn: 0.8, cr: 0, mo: 0, v: 0, ni: 0, cu: 0 } });
  return (
    <Box mt="2" as="section" aria-label="Steel analysis">
      <Flex gap="3" align="center" wrap="wrap">
        <Text fontSize="14px">
          <b>Analysis of the {side} rail's steel, %</b>
          {!there && ": not known; the steel's own typical value decides the preheat"}
        </Text>
        {may.design && <Act onClick={turn}>{there ? "Forget it" : "Give the analysis"}</Act>}
      </Flex>
      {there && (
        <Flex gap="2" wrap="wrap">
          {ELEMENTS.map(([key, name]) => (
            <Box key={key} w="5rem">
              <QuantityField label={name} path={[...path, key]} kind="number" />
            </Box>
          ))}
        </Flex>
      )}
    </Box>
  );
}
