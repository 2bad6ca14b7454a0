import { Box, Text } from "@chakra-ui/react";
import type { Problem } from "../api/types";
import { bare } from "../fields/placeInWords";

/** The way to a field outside the bench, without its units: row 3, width. */
function inWords(pointer: string): string {
  const path = pointer.split("/").filter(Boolean);
  const names = path.map((name, i) =>
    /^\d+$/.test(name) && path[i - 1] !== "line" ? `${Number(name) + 1}` : bare(name),
  );
  return names.length ? `${names.join(" ")}: ` : "";
}

/** What is wrong, where, what was found and what would be accepted. */
export function TroubleList({ problems, lead }: { problems: readonly Problem[]; lead?: string }) {
  return (
    <Box role="alert" mt={problems.length ? "3" : "0"}>
      {problems.length > 0 && lead && <Text fontWeight="600">{lead}</Text>}
      {problems.slice(0, 12).map((p) => (
        <Text key={`${p.pointer}${p.message}`} color="removed" fontSize="14px">
          {inWords(p.pointer)}
          {p.message}
          {p.found && `; found ${p.found}`}
          {p.expected && `; expected ${p.expected}`}
        </Text>
      ))}
      {problems.length > 12 && <Text fontSize="14px">and {problems.length - 12} more</Text>}
    </Box>
  );
}
