import { Text } from "@chakra-ui/react";
import { useState } from "react";
import { useMay } from "../app/session";
import { shownDraft, useBench } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { PlainWords } from "../fields/plain";

const PATH = ["design", "rule"] as const;
const STOCK = "as strong as stock";

/** What a cut rail is asked: that it carries its loads, or that it is as strong as stock everywhere. */
export function StrengthRule() {
  const rule = useBench((s) => shownDraft(s).design.rule);
  const act = useBench((s) => s.act);
  const may = useMay();
  const [reason, setReason] = useState("");
  const strict = rule?.kind === STOCK;
  const put = (value: unknown) => act({ kind: "set", path: PATH, value });
  return (
    <Group title="What the rail is asked">
      <Text fontSize="14px">
        {strict
          ? `To be as strong as stock everywhere: ${rule?.reason}. What is weaker fails.`
          : "To carry its loads. What is weaker than stock and carries them is told in amber."}
      </Text>
      {may.design && strict && (
        <Act onClick={() => put({ kind: "carries it", reason: null })}>Ask only that it carries its loads</Act>
      )}
      {may.design && !strict && (
        <>
          <PlainWords label="Who asks for more, or why" value={reason} take={setReason} />
          <Act off={!reason.trim()} onClick={() => put({ kind: STOCK, reason: reason.trim() })}>
            Ask for as strong as stock
          </Act>
        </>
      )}
    </Group>
  );
}
