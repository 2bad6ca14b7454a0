import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { Act, PlainChoice } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { Minted, type MintedLink } from "./Minted";
import { useCall } from "./useCall";
import { WHEN } from "./when";

const DAYS = [
  ["2", "2 days"],
  ["14", "14 days"],
  ["60", "60 days"],
  ["180", "half a year"],
] as const;

/** Links by which somebody outside looks at this job: an inspector, the vehicle's owner. */
export default function ReaderLinks({ jobId }: { jobId: number }) {
  const params = { path: { job_id: jobId } };
  const links = useQuery({
    queryKey: ["links", jobId],
    queryFn: () => got(api.GET("/api/jobs/{job_id}/links", { params })),
  });
  const { call, trouble } = useCall(["links"]);
  const [label, setLabel] = useState("");
  const [days, setDays] = useState("14");
  const [made, setMade] = useState<MintedLink | null>(null);
  const make = () =>
    call(async () => {
      setMade(await got(api.POST("/api/jobs/{job_id}/links", { params, body: { label, days: Number(days) } })));
      setLabel("");
    });
  return (
    <Box borderTopWidth="1px" borderColor="rule" mt="3" pt="3">
      <Text fontSize="14px" mb="1">
        A reader's link opens this job to look at, and nothing else.
      </Text>
      <Flex gap="2" align="end" wrap="wrap">
        <Box flex="1" minW="9rem">
          <PlainWords label="For whom" value={label} take={setLabel} />
        </Box>
        <Box w="8rem">
          <PlainChoice free label="Holds for" value={days} choices={DAYS} choose={setDays} />
        </Box>
        <Act onClick={() => void make()}>Make a link</Act>
      </Flex>
      {made && <Minted link={made} what="Whoever has this link looks at this job." />}
      {trouble && <Text role="alert">{trouble}</Text>}
      {links.data?.map((row) => (
        <Flex key={row.id} gap="2" align="center" py="1">
          <Text flex="1" fontSize="14px">
            {row.label || "reader"}, until {WHEN.format(new Date(row.expires))}
          </Text>
          <Act
            onClick={() =>
              void call(() => api.DELETE("/api/links/{link_id}", { params: { path: { link_id: row.id } } }))
            }
          >
            Take back
          </Act>
        </Flex>
      ))}
    </Box>
  );
}
