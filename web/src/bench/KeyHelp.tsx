import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { Act } from "../fields/controls";
import { KEYS } from "./keys";

/** The bench's keys, on demand. */
export function KeyHelp() {
  const [open, setOpen] = useState(false);
  return (
    <Box position="relative">
      <Act onClick={() => setOpen(!open)}>Keys</Act>
      {open && (
        <Box
          position="absolute"
          right="0"
          top="40px"
          zIndex="5"
          bg="sheet"
          borderWidth="1px"
          borderColor="chalk"
          p="3"
          w="27rem"
          role="dialog"
          aria-label="Keys"
        >
          {KEYS.map(([keys, does]) => (
            <Text key={keys} fontSize="14px">
              <b>{keys}</b>: {does}
            </Text>
          ))}
        </Box>
      )}
    </Box>
  );
}
