import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../draft/store";
import { Act } from "../fields/controls";
import type { Kind } from "../units/show";
import { asShown, type Held, useLive } from "./useLive";

type Given = {
  instrument: string;
  name: string;
  zeroed: boolean;
  held: Held;
  kind: Kind;
  take: (value: number, text: string) => void;
};

/** What the instrument in hand reads now, until it is taken. */
export function LiveReading({ instrument, name, zeroed, held, kind, take }: Given) {
  const style = useBench((s) => s.style);
  const [on, setOn] = useState(false);
  const live = useLive(instrument, on ? held : null);
  if (!live.there) return null;
  if (!on) {
    return (
      <Act slight onClick={() => setOn(true)}>
        from the {name}
      </Act>
    );
  }
  const { now } = live;
  const shown = now ? asShown(now.value, kind, style) : "…";
  return (
    <Box role="group" aria-label={`Live from the ${name}`} fontSize="14px">
      <Text fontSize="18px" fontVariantNumeric="tabular-nums" aria-live="off">
        {shown} {now && !now.settled && "…"}
      </Text>
      <Text role="alert" color="removed" fontSize="13px">
        {live.trouble}
      </Text>
      <Flex gap="2" wrap="wrap">
        {zeroed && <Act onClick={live.zero}>Zero it on the rail</Act>}
        <Act
          off={!now?.settled}
          onClick={() => {
            if (!now) return;
            take(now.value, shown);
            setOn(false);
          }}
        >
          Take it
        </Act>
        <Act slight onClick={() => setOn(false)}>
          not now
        </Act>
      </Flex>
    </Box>
  );
}
