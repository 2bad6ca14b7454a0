import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import { useMay, useSession } from "../app/session";
import { Act, Group, PlainChoice } from "../fields/controls";
import { Minted, type MintedLink } from "./Minted";
import { useCall } from "./useCall";
import { WHEN } from "./when";

type Member = components["schemas"]["MemberRow"];
type Role = Member["role"];
const ROLES = [
  ["owner", "owner: everything"],
  ["helper", "helper: readings, steps, log"],
  ["reader", "reader: looks"],
] as const;
const roleOf = (text: string): Role => ROLES.find(([role]) => role === text)?.[0] ?? "reader";

/** Who is in the shop and what each may do; invitations and links that are out. */
export function People() {
  const found = useQuery({ queryKey: ["people"], queryFn: () => got(api.GET("/api/people")) });
  const { owns } = useMay();
  const { call, trouble } = useCall(["people", "audit"]);
  const [role, setRole] = useState<Role>("helper");
  const [made, setMade] = useState<{ link: MintedLink; what: string } | null>(null);
  if (!found.data) return null;
  const invite = () =>
    call(async () => {
      const link = await got(api.POST("/api/people/invite", { body: { role } }));
      setMade({ link, what: `Hand this link to the person: whoever opens it first joins as ${role}.` });
    });
  return (
    <Box>
      <Group title="People">
        {found.data.members.map((member) => (
          <MemberLine key={member.id} member={member} owns={owns} call={call} mint={setMade} />
        ))}
      </Group>
      {owns && (
        <Group title="Somebody new">
          <Flex gap="2" align="end" wrap="wrap">
            <Box w="16rem">
              <PlainChoice free label="May do" value={role} choices={ROLES} choose={(r) => setRole(roleOf(r))} />
            </Box>
            <Act main onClick={() => void invite()}>
              Make an invitation
            </Act>
          </Flex>
        </Group>
      )}
      {made && <Minted link={made.link} what={made.what} />}
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
      {found.data.invitations.length + found.data.links.length > 0 && (
        <Group title="Links that are out">
          {found.data.invitations.map((row) => (
            <OpenLine
              key={`i${row.id}`}
              text={`Invitation as ${row.label}, by ${row.by}`}
              until={row.expires}
              end={() =>
                call(() =>
                  api.DELETE("/api/people/invitations/{invitation_id}", {
                    params: { path: { invitation_id: row.id } },
                  }),
                )
              }
            />
          ))}
          {found.data.links.map((row) => (
            <OpenLine
              key={`l${row.id}`}
              text={`${row.label || "Reader"} looks at '${row.job}', by ${row.by}`}
              until={row.expires}
              end={() => call(() => api.DELETE("/api/links/{link_id}", { params: { path: { link_id: row.id } } }))}
            />
          ))}
        </Group>
      )}
    </Box>
  );
}

type LineProps = {
  member: Member;
  owns: boolean;
  call: (act: () => Promise<unknown>) => Promise<void>;
  mint: (made: { link: MintedLink; what: string }) => void;
};

function MemberLine({ member, owns, call, mint }: LineProps) {
  const session = useSession();
  const params = { path: { member_id: member.id } };
  const change = (body: components["schemas"]["MemberChange"]) =>
    call(() => api.PATCH("/api/people/{member_id}", { params, body }));
  const password = () =>
    call(async () => {
      const link = await got(api.POST("/api/people/{member_id}/password", { params }));
      mint({ link, what: `Hand this link to ${member.name}: it sets a new password.` });
    });
  return (
    <Flex gap="3" align="center" wrap="wrap" py="2" borderBottomWidth="1px" borderColor="rule">
      <Box flex="1" minW="10rem">
        <Text fontWeight="600">
          {member.name}
          {member.name === session.user && ", you"}
        </Text>
        <Text fontSize="14px" color="faint">
          {member.disabled ? "shut out; " : ""}
          {member.last_seen ? `last signed in ${WHEN.format(new Date(member.last_seen))}` : "not signed in yet"}
        </Text>
      </Box>
      {owns ? (
        <>
          <Box w="16rem">
            <PlainChoice
              free
              bare
              label={`${member.name} may do`}
              value={member.role}
              choices={ROLES}
              choose={(role) => void change({ role: roleOf(role) })}
            />
          </Box>
          <Act onClick={() => void password()}>New password</Act>
          <Act onClick={() => void change({ disabled: !member.disabled })}>
            {member.disabled ? "Let in again" : "Shut out"}
          </Act>
        </>
      ) : (
        <Text>{member.role}</Text>
      )}
    </Flex>
  );
}

function OpenLine({ text, until, end }: { text: string; until: string; end: () => Promise<void> }) {
  return (
    <Flex gap="3" align="center" wrap="wrap" py="2" borderBottomWidth="1px" borderColor="rule">
      <Text flex="1" minW="12rem" fontSize="15px">
        {text}, until {WHEN.format(new Date(until))}
      </Text>
      <Act onClick={() => void end()}>Take back</Act>
    </Flex>
  );
}
