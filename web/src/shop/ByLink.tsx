import { Box, Button, Heading, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, got } from "../api/client";
import { forgetKept } from "../app/offline";
import { messageOf } from "../cut/useSearch";
import { PlainWords } from "../fields/plain";

/** Join a shop by an invitation: a name and a password of one's own. */
export function Join() {
  const { token = "" } = useParams();
  const params = { path: { token } };
  const to = useQuery({ queryKey: ["join", token], queryFn: () => got(api.GET("/api/join/{token}", { params })) });
  const [name, setName] = useState("");
  if (to.isError) return <Sheet title="Nodulant">{to.error.message}.</Sheet>;
  if (!to.data) return <Sheet title="Nodulant">Looking at the invitation</Sheet>;
  const send = (password: string) => got(api.POST("/api/join/{token}", { params, body: { name, password } }));
  return (
    <PasswordForm title={`Join '${to.data.shop}' as ${to.data.role}`} send={send} ask="Join">
      <PlainWords label="Your name here" value={name} take={setName} complete="username" />
    </PasswordForm>
  );
}

/** Set a new password by a link. */
export function NewPassword() {
  const { token = "" } = useParams();
  const send = (password: string) =>
    got(api.POST("/api/password/{token}", { params: { path: { token } }, body: { password } }));
  return <PasswordForm title="A new password" send={send} ask="Set it" />;
}

type FormProps = { title: string; ask: string; send: (password: string) => Promise<unknown>; children?: ReactNode };

function PasswordForm({ title, ask, send, children }: FormProps) {
  const queries = useQueryClient();
  const go = useNavigate();
  const [password, setPassword] = useState("");
  const [trouble, setTrouble] = useState("");
  const enter = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await send(password);
      forgetKept();
      await queries.resetQueries({ queryKey: ["session"] });
      go("/");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Sheet title={title}>
      <form onSubmit={(e) => void enter(e)}>
        <Stack gap="3">
          {children}
          <PlainWords
            label="Password, eight or more"
            value={password}
            take={setPassword}
            complete="new-password"
            secret
          />
          <Text role="alert" color="removed" minH="1.4em">
            {trouble}
          </Text>
          <Button type="submit" bg="chalk" color="onchalk">
            {ask}
          </Button>
        </Stack>
      </form>
    </Sheet>
  );
}

function Sheet({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="main" maxW="24rem" mx="auto" mt="16" p="6" bg="panel" borderWidth="1px" borderColor="rule">
      <Heading size="xl" mb="4">
        {title}
      </Heading>
      {children}
    </Box>
  );
}
