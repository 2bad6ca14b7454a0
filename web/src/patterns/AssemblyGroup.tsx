import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { usePick } from "../draft/store";
import { Group, PlainChoice } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { usePatterns } from "./usePatterns";

const SYMBOLS = [
  ["", "as the unit system has them"],
  ["iso", "ISO 2553"],
  ["aws", "AWS A2.4"],
] as const;

/** How every operation is put together, on paper and as lists. */
export function AssemblyGroup() {
  const { optionId } = usePick("optionId");
  const paper = usePatterns((s) => s.paper);
  const [symbols, setSymbols] = useState("");
  const base = `/api/options/${optionId}`;
  const chosen = symbols ? `&symbols=${symbols}` : "";
  return (
    <Group title="Assembly">
      <Text fontSize="14px">One page an operation: its parts in place, every weld with its leg, length and turn.</Text>
      <Box mt="1">
        <PlainChoice free label="Weld symbols" value={symbols} choices={SYMBOLS} choose={setSymbols} />
      </Box>
      <Flex gap="2" wrap="wrap" mt="1">
        <FileLink href={`${base}/assembly.pdf?paper=${paper}${chosen}`} name="Assembly sheets, PDF" />
        <FileLink href={`${base}/welds.csv`} name="Weld map, CSV" />
        <FileLink href={`${base}/parts.csv`} name="Parts list, CSV" />
        <FileLink href={`${base}/model.glb`} name="In space, glTF" />
        <FileLink href={`${base}/model.stl`} name="In space, STL" />
      </Flex>
    </Group>
  );
}
