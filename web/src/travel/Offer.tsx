import { Text } from "@chakra-ui/react";
import { Act } from "../fields/controls";

type Props = { main: boolean; words: string; fails: readonly string[]; reaches: boolean; use: () => void };

/** The button that takes a choice over, or why it is not offered. */
export function Offer({ main, words, fails, reaches, use }: Props) {
  if (fails.length === 0 && reaches)
    return (
      <Act main={main} onClick={use}>
        {words}
      </Act>
    );
  return (
    <Text color="faint">
      <b>Not offered:</b> {reaches ? `with it this fails: ${fails.join("; ")}` : "it does not reach its travel"}.
    </Text>
  );
}
