import { Box, Text } from "@chakra-ui/react";
import { Act } from "../fields/controls";
import { WHEN } from "./when";

export type MintedLink = { path: string; expires: string };

/** A link that was just made: it is shown this once, to be copied and handed over. */
export function Minted({ link, what }: { link: MintedLink; what: string }) {
  const url = `${window.location.origin}${link.path}`;
  return (
    <Box role="status" p="3" my="2" bg="sheet" borderLeftWidth="4px" borderColor="chalk">
      <Text fontSize="15px">
        {what} It is shown this once and holds until {WHEN.format(new Date(link.expires))}.
      </Text>
      <Text fontFamily="mono" fontSize="14px" my="2" wordBreak="break-all" userSelect="all">
        {url}
      </Text>
      <Act onClick={() => void navigator.clipboard?.writeText(url)}>Copy</Act>
    </Box>
  );
}
