import { Box, Text } from "@chakra-ui/react";
import type { Hose } from "../api/types";
import { useMay } from "../app/session";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { Act, Group, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PointFields } from "./LinkFields";
import { useBegun } from "./useBegun";

/** Brake hoses and leads from the frame to the wheel: long enough at droop and full lock? */
export function HoseFields({ hoses, path }: { hoses: readonly Hose[]; path: Path }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const begun = useBegun();
  return (
    <Group title="Hoses">
      {hoses.length === 0 && (
        <Text fontSize="14px" mb="1">
          None given. A brake hose has to reach in droop with the wheel at full lock.
        </Text>
      )}
      {hoses.map((hose, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: hoses have no ids, and their order is the document's
        <Box key={k} mb="2" p="2" bg="sheet">
          <WordsField label="Hose" path={[...path, k, "name"]} />
          <PointFields label="At the frame, right" path={[...path, k, "frame"]} on="frame" />
          <PointFields label="At the wheel, right" path={[...path, k, "wheel"]} on="axle" />
          <QuantityField label="Free length, fitting to fitting" path={[...path, k, "length_mm"]} />
          {may.design && <Act onClick={() => act({ kind: "remove", path: [...path, k] })}>Take {hose.name} out</Act>}
        </Box>
      ))}
      {begun.trouble && <p role="alert">{begun.trouble}</p>}
      {may.design && hoses.length < 6 && (
        <Act onClick={() => void begun.part(path, "hose", "", "insert")}>Add a hose</Act>
      )}
    </Group>
  );
}
