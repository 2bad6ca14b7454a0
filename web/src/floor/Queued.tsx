import { Box, Flex, Text } from "@chakra-ui/react";
import { useSession } from "../app/session";
import { Big, Over } from "./Big";
import { drop, flush, retry, useQueue } from "./queue";
import type { Floor } from "./useFloor";

/** How much is not with the server yet, in words; empty where all is. */
export function useUnsent(): { words: string; refused: boolean } {
  const { rows: all, reached, unkept } = useQueue();
  const rows = all.filter((r) => !r.sent);
  const refused = rows.filter((r) => r.refused).length;
  if (refused) return { words: `${refused} not taken`, refused: true };
  if (unkept && rows.length) return { words: `${rows.length} only in this page`, refused: true };
  if (rows.length)
    return { words: reached ? `sending ${rows.length}` : `offline, ${rows.length} kept`, refused: false };
  return { words: reached ? "" : "offline", refused: false };
}

/** What waits and what was not taken, with the choice of each. */
export function Queued({ floor, close }: { floor: Floor; close: () => void }) {
  const { rows: all, unkept } = useQueue();
  const rows = all.filter((r) => !r.sent);
  const me = useSession().user;
  return (
    <Over title="Not with the server yet" close={close}>
      {unkept && (
        <Text fontSize="20px" color="removed">
          This browser keeps nothing: leave this page open until it is sent.
        </Text>
      )}
      {rows.length === 0 && <Text fontSize="20px">Everything is with the server.</Text>}
      {rows.map((r) => (
        <Box key={r.mark} p="2" bg="sheet" borderLeftWidth="6px" borderColor={r.refused ? "removed" : "touch"}>
          <Text fontSize="20px">
            {r.title}, {new Date(r.doneAt).toLocaleString()}
            {r.person !== me && ` (by ${r.person}: sent when they sign in here)`}
          </Text>
          {"act" in r && "note" in r.act && r.act.note && <Text fontSize="20px">{r.act.note}</Text>}
          {r.refused && (
            <>
              <Text fontSize="20px" color="removed">
                Not taken: {r.refused}
              </Text>
              <Flex gap="2" mt="2">
                <Big grow onClick={() => void retry(r.mark, floor.refresh)}>
                  Try again
                </Big>
                <Big grow kind="stop" onClick={() => void drop(r.mark).then(floor.refresh)}>
                  Leave it out
                </Big>
              </Flex>
            </>
          )}
        </Box>
      ))}
      {rows.some((r) => !r.refused) && (
        <Big kind="main" onClick={() => void flush(floor.refresh)}>
          Send now
        </Big>
      )}
    </Over>
  );
}
