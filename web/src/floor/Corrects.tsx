import { Box, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { Over } from "./Big";
import { useQueue } from "./queue";
import type { Floor } from "./useFloor";

/** Where the axles and wheels stand by what was read, and the turns and shims that bring them back; solved by the server. */
export function Corrects({ floor, close }: { floor: Floor; close: () => void }) {
  const { optionId } = floor;
  // what was read here counts as soon as it is sent
  const waiting = useQueue((s) => s.rows.filter((row) => !row.sent).length);
  const found = useQuery({
    queryKey: ["built", optionId, waiting],
    queryFn: () => got(api.GET("/api/options/{option_id}/built", { params: { path: { option_id: optionId } } })),
    gcTime: 0,
    retry: false,
  });
  const built = found.data;
  return (
    <Over title="What corrects it" close={close}>
      <Text role="alert" color="removed" fontSize="20px">
        {found.error && `Not solved: ${found.error.message}. The readings are kept.`}
      </Text>
      {found.isPending && <Text fontSize="20px">Solving…</Text>}
      {built && built.axles.length === 0 && built.leaning.length === 0 && (
        <Text fontSize="20px">Nothing of joints, links or wheels was read yet.</Text>
      )}
      {built?.leaning.map((row) => (
        <Box key={`${row.about}/${row.name}`} bg="sheet" p="2">
          <Text fontSize="24px" fontWeight="600">
            {row.about}: {row.name.toLowerCase()}
          </Text>
          <Text fontSize="20px" color={row.matters ? "removed" : undefined}>
            {row.words}
          </Text>
          {row.corrections.map((words) => (
            <Way key={words} inside words={words} />
          ))}
        </Box>
      ))}
      {built?.axles.map((axle) => (
        <Box key={axle.name} bg="sheet" p="2" role="group" aria-label={axle.name}>
          <Text fontSize="24px" fontWeight="600">
            {axle.name}
          </Text>
          {axle.outcomes.map((o) => (
            <Text key={o.name} fontSize="20px" color={Math.abs(o.off) > o.allowed ? "removed" : undefined}>
              {o.name}: {o.words}
            </Text>
          ))}
          {axle.words && <Text fontSize="20px">{axle.words}</Text>}
          {axle.corrections.map((c) => (
            <Way key={c.words} inside={c.inside} words={c.inside ? c.words : `Better, not inside: ${c.words}`} />
          ))}
        </Box>
      ))}
    </Over>
  );
}

function Way({ inside, words }: { inside: boolean; words: string }) {
  return (
    <Text fontSize="20px" mt="2" ps="2" borderLeftWidth="6px" borderColor={inside ? "added" : "touch"}>
      {words}
    </Text>
  );
}
