import { Text } from "@chakra-ui/react";
import type { Problem } from "../api/types";
import type { Path } from "../draft/document";
import type { Raw } from "../draft/raw";
import { useShown } from "../evaluation/useEvaluation";

/** The JSON pointer of a draft path. */
export const pointerOf = (path: Path): string => `/${path.join("/")}`;

/** The evaluation's problem at a field, if it has one. */
export function useProblem(pointer: string): Problem | undefined {
  return useShown((s) => s.problems.find((p) => p.pointer === pointer));
}

/** What is wrong at a field: the typed text with the place of the error, or the core's refusal. */
export function FieldTrouble({ raw, problem }: { raw?: Raw; problem?: Problem }) {
  if (raw?.message) {
    const at = raw.position ?? raw.text.length;
    return (
      <Text role="alert" fontSize="14px" color="removed">
        <code style={{ whiteSpace: "pre" }}>
          {raw.text.slice(0, at)}
          <mark aria-hidden="true">‸</mark>
          {raw.text.slice(at)}
        </code>{" "}
        {raw.message}, {raw.acceptable}
      </Text>
    );
  }
  if (!problem) return null;
  return (
    <Text role="alert" fontSize="14px" color="removed">
      {problem.message}
      {problem.found && `: ${problem.found}`}
      {problem.expected && `. Give ${problem.expected}.`}
    </Text>
  );
}
