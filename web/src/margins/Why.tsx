import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useCatalogue } from "../api/catalogue";
import type { Check } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { openAt } from "../fields/openAt";
import { placeInWords } from "../fields/placeInWords";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { showLength, showNumber } from "../units/show";
import { shown } from "./group";

/** Why a check says what it says: formula with the values put in, the place, the source, what to do. */
export function Why({ check }: { check: Check }) {
  const style = useBench((s) => s.style);
  const length = (mm: number) => showLength(mm, style);
  const words = useCatalogue();
  const named = words.cases.find((c) => c.id === check.governs.case)?.name;
  const [changing, setChanging] = useState(false);
  const may = useMay();
  const place = [
    check.governs.station_mm != null && `${length(check.governs.station_mm)} behind the front axle`,
    check.governs.pose_mm != null && `at ${length(check.governs.pose_mm)} of travel`,
    named && `in the case '${named}'`,
  ].filter(Boolean);
  return (
    <Box fontSize="14px" pb="2" ps="6">
      {check.why && (
        <>
          <Text>{check.why.words}</Text>
          <Box as="code" display="block" fontSize="13px" bg="sheet" p="1.5" my="1" overflowWrap="anywhere">
            {withValues(check)}
          </Box>
        </>
      )}
      {check.missing.length > 0 && <Missing pointers={check.missing} />}
      {place.length > 0 && <Text>Governs: {place.join(", ")}.</Text>}
      <Text color="faint">
        {!check.yes_no &&
          `${check.direction === "at-least" ? "At least" : "At most"} ${shown(check.limit, check.unit, style, words)}: `}
        {check.basis}.
      </Text>
      {check.remedy && <Text fontWeight="600">{check.remedy}</Text>}
      {may.design && (
        <Flex mt="1" gap="2">
          <Act onClick={() => setChanging(!changing)}>{check.changed_limit ? "Your limit" : "Change this limit"}</Act>
        </Flex>
      )}
      {changing && <ChangeLimit check={check} done={() => setChanging(false)} />}
    </Box>
  );
}

function withValues(check: Check): string {
  if (!check.why || check.value === null) return "";
  const numbers = Object.entries(check.why.values)
    .map(([name, value]) => `${name} = ${showNumber(value, 5)}`)
    .join(", ");
  return `${check.why.formula} = ${showNumber(check.value, 5)}   with ${numbers}`;
}

function Missing({ pointers }: { pointers: readonly string[] }) {
  const draft = useBench((s) => s.history.now);
  const { forms } = useCatalogue();
  return (
    <Box>
      <Text>Not computed: an input is missing.</Text>
      <Flex wrap="wrap" gap="1" my="1">
        {pointers.slice(0, 4).map((pointer) => (
          <Act key={pointer} onClick={() => openAt(pointer)}>
            {placeInWords(pointer, draft, forms)}
          </Act>
        ))}
      </Flex>
    </Box>
  );
}

function ChangeLimit({ check, done }: { check: Check; done: () => void }) {
  const act = useBench((s) => s.act);
  const [value, setValue] = useState<number>(check.limit);
  const [reason, setReason] = useState("");
  const limits = useBench((s) => s.history.now.design.limits);
  const put = (change: { value: number; reason: string } | null) => {
    const { [check.limit_id]: _old, ...rest } = limits ?? {};
    act({
      kind: "set",
      path: ["design", "limits"],
      value: change ? { ...rest, [check.limit_id]: change } : rest,
    });
    done();
  };
  return (
    <Box mt="1">
      <PlainQuantity
        label="Your limit"
        value={value}
        take={setValue}
        kind={check.unit === "mm" ? "length" : "number"}
      />
      <PlainWords label="Reason, shown beside it and in the report" value={reason} take={setReason} />
      <Flex gap="2" mt="1">
        <Act main off={!reason.trim()} onClick={() => put({ value, reason: reason.trim() })}>
          Use it
        </Act>
        {check.changed_limit && <Act onClick={() => put(null)}>Back to the default</Act>}
      </Flex>
    </Box>
  );
}
