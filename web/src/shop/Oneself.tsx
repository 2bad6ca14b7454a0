import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { useSession } from "../app/session";
import { Act, Group } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { useCall } from "./useCall";
import { WHEN } from "./when";

/** One's own password, the browsers one is signed in with, and one's other shops. */
export function Oneself() {
  const session = useSession();
  const queries = useQueryClient();
  const places = useQuery({ queryKey: ["places"], queryFn: () => got(api.GET("/api/session/places")) });
  const { call, trouble } = useCall(["places", "audit"]);
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const [told, setTold] = useState("");
  const change = () =>
    call(async () => {
      setTold("");
      await got(api.POST("/api/session/password", { body: { old, new: fresh } }));
      setOld("");
      setFresh("");
      setTold("Changed. Every other browser of yours is signed out.");
    });
  const go = async (id: number) => {
    await api.POST("/api/session/shop/{shop_id}", { params: { path: { shop_id: id } } });
    await queries.resetQueries();
  };
  return (
    <Box>
      {session.shops && session.shops.length > 1 && (
        <Group title="Your shops">
          <Flex gap="2" wrap="wrap">
            {session.shops.map((shop) => (
              <Act key={shop.id} pressed={shop.name === session.shop} onClick={() => void go(shop.id)}>
                {shop.name}
              </Act>
            ))}
          </Flex>
        </Group>
      )}
      <Group title="Signed in with">
        {places.data?.map((place) => (
          <Flex key={place.id} gap="3" align="center" wrap="wrap" py="2" borderBottomWidth="1px" borderColor="rule">
            <Box flex="1" minW="12rem">
              <Text fontSize="15px">
                {place.here ? "This browser" : browserOf(place.agent)}
                {place.address && `, at ${place.address}`}
              </Text>
              <Text fontSize="14px" color="faint">
                since {WHEN.format(new Date(place.at))}
              </Text>
            </Box>
            {!place.here && (
              <Act
                onClick={() =>
                  void call(() =>
                    api.DELETE("/api/session/places/{place_id}", { params: { path: { place_id: place.id } } }),
                  )
                }
              >
                Sign out there
              </Act>
            )}
          </Flex>
        ))}
      </Group>
      <Group title="Password">
        <Flex gap="3" align="end" wrap="wrap">
          <Box w="14rem">
            <PlainWords label="Old password" value={old} take={setOld} complete="current-password" secret />
          </Box>
          <Box w="14rem">
            <PlainWords label="New password" value={fresh} take={setFresh} complete="new-password" secret />
          </Box>
          <Act off={!old || !fresh} onClick={() => void change()}>
            Change password
          </Act>
        </Flex>
        {told && <Text role="status">{told}</Text>}
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      </Group>
    </Box>
  );
}

/** What a browser says of itself, in short. */
function browserOf(agent: string): string {
  const on = /Android|iPhone|iPad|Windows|Macintosh|Linux/.exec(agent)?.[0] ?? "another machine";
  return `A browser on ${on}`;
}
