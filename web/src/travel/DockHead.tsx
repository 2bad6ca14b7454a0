import { Flex, Text } from "@chakra-ui/react";
import { memo } from "react";
import { Act } from "../fields/controls";

type Props = { title: string; note?: string; table: boolean; turn: (table: boolean) => void };

/** What a dock of curves shows, and the button that turns them into a table. */
export const DockHead = memo(function DockHead({ title, note, table, turn }: Props) {
  return (
    <Flex px="3" py="0.5" gap="3" align="center" bg="panel" borderYWidth="1px" borderColor="rule">
      <Text fontFamily="heading" fontWeight="600" fontSize="17px" flex="1">
        {title}
        {note && <span className="small-words row-tail"> {note}</span>}
      </Text>
      <Act onClick={() => turn(!table)}>{table ? "Curves" : "Table"}</Act>
    </Flex>
  );
});
