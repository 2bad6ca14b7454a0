import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useBench } from "../draft/store";
import { Act } from "../fields/controls";
import { useHelp } from "./helpStore";
import { TermPicture } from "./TermPicture";
import { termFor, useTerms } from "./terms";

/** The field that has the keyboard, by its pointer; null where none of the draft's has. */
function useFieldAtHand(): string | null {
  const [pointer, setPointer] = useState<string | null>(null);
  useEffect(() => {
    const look = (event: FocusEvent) => {
      const own = event.target instanceof HTMLElement ? event.target.closest("[data-field]") : null;
      setPointer(own?.getAttribute("data-field") ?? null);
    };
    addEventListener("focusin", look);
    return () => removeEventListener("focusin", look);
  }, []);
  return pointer;
}

const isNumber = (part: string) => /^\d+$/.test(part);

/**
 * At the foot of the stage: what the field at hand asks for, and from where to where it is measured. It lies over the
 * form and moves nothing: leaving a field by a press must not take what is pressed from under the pointer.
 */
export function FieldHelp() {
  const pointer = useFieldAtHand();
  const { beside, put } = useHelp();
  const terms = useTerms(beside && pointer !== null);
  const kind = useBench((s) => {
    const [, root, list, index] = pointer?.split("/") ?? [];
    return root === "design" && list === "operations"
      ? (s.history.now.design.operations[Number(index)]?.kind ?? "")
      : "";
  });
  if (!beside || !pointer) return null;
  const names = pointer
    .split("/")
    .slice(2)
    .filter((part) => part && !isNumber(part));
  const term = termFor(terms, kind, names);
  if (!term) return null;
  return (
    <Box
      as="aside"
      aria-label={`What is asked: ${term.name}`}
      position="absolute"
      bottom="0"
      left="0"
      right="0"
      borderTopWidth="2px"
      borderColor="chalk"
      bg="sheet"
      px="3"
      py="2"
      display={{ base: "none", md: "block" }}
    >
      <Flex gap="3" align="flex-start">
        <TermPicture term={term} width={92} />
        <Text fontSize="13px" lineHeight="1.3">
          <b>{term.name}.</b> {term.says}
        </Text>
      </Flex>
      <Flex justify="flex-end" gap="2" mt="1" onMouseDown={(e) => e.preventDefault()}>
        <Act onClick={() => put({ sheet: "words", word: term.name })}>All words</Act>
        <Act onClick={() => put({ beside: false })}>Not here</Act>
      </Flex>
    </Box>
  );
}
