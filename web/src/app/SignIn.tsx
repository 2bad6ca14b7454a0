import { Box, Button, Heading, Stack, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api } from "../api/client";
import type { Session } from "../api/types";
import { PlainWords } from "../fields/plain";
import { forgetKept } from "./offline";
import { useSwitchPerson } from "./session";

/** Name and password; on the demo also its three people. */
export function SignIn({ session }: { session: Session }) {
  const queries = useQueryClient();
  const switchTo = useSwitchPerson();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [trouble, setTrouble] = useState("");
  const enter = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await api.POST("/api/session/sign-in", { body: { name, password } });
      forgetKept();
      await queries.resetQueries();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : "that did not work");
    }
  };
  return (
    <Box maxW="24rem" mx="auto" mt="16" p="6" bg="panel" borderWidth="1px" borderColor="rule">
      <Heading size="2xl" mb="4">
        Nodulant
      </Heading>
      <form onSubmit={enter}>
        <Stack gap="3">
          <PlainWords label="Name" value={name} take={setName} complete="username" />
          <PlainWords label="Password" value={password} take={setPassword} complete="current-password" secret />
          <Text role="alert" color="removed" minH="1.4em">
            {trouble}
          </Text>
          <Button type="submit" bg="chalk" color="onchalk">
            Sign in
          </Button>
        </Stack>
      </form>
      {session.demo && (
        <Stack mt="5" gap="2">
          <Text color="faint">This is the demo shop on your own machine. Come in as</Text>
          {session.people.map((person) => (
            <Button key={person.name} variant="outline" borderColor="rule" onClick={() => void switchTo(person.name)}>
              {person.name}, {person.role}
            </Button>
          ))}
        </Stack>
      )}
    </Box>
  );
}
