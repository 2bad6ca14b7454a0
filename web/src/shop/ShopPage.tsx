import { Box, Flex, Heading, Tabs, VisuallyHidden } from "@chakra-ui/react";
import { useEffect } from "react";
import { Link } from "react-router";
import { useMay, useSession } from "../app/session";
import { Oneself } from "./Oneself";
import { People } from "./People";
import { ServerState } from "./ServerState";
import { WhatHappened } from "./WhatHappened";

/** The shop: its people, oneself, what happened, and how the server is. */
export default function ShopPage() {
  const session = useSession();
  const { owns } = useMay();
  useEffect(() => {
    document.title = "The shop, Nodulant";
  }, []);
  const tabs = [
    ["people", "People", <People key="p" />],
    ["you", "You", <Oneself key="y" />],
    ...(owns
      ? ([
          ["happened", "What happened", <WhatHappened key="w" />],
          ["server", "Server and backups", <ServerState key="s" />],
        ] as const)
      : []),
  ] as const;
  return (
    <Box as="main" maxW="60rem" mx="auto" p="6">
      <Flex align="baseline" gap="4" mb="4" wrap="wrap">
        <Heading as="h1" size="3xl">
          {session.shop}
        </Heading>
        <Link to="/" style={{ textDecoration: "underline" }}>
          Jobs
        </Link>
      </Flex>
      <Tabs.Root defaultValue="people" lazyMount unmountOnExit>
        <Tabs.List borderColor="rule" mb="3">
          {tabs.map(([key, name]) => (
            <Tabs.Trigger key={key} value={key} minH="44px">
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {tabs.map(([key, name, panel]) => (
          <Tabs.Content key={key} value={key} pt="0">
            <VisuallyHidden asChild>
              <h2>{name}</h2>
            </VisuallyHidden>
            {panel}
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </Box>
  );
}
