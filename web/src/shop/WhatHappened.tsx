import { Box, Table, Text } from "@chakra-ui/react";
import { useInfiniteQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { Act } from "../fields/controls";
import { WHEN } from "./when";

/** Who did what, newest first. It is written down by the server and cannot be changed. */
export function WhatHappened() {
  const rows = useInfiniteQuery({
    queryKey: ["audit"],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) => got(api.GET("/api/audit", { params: { query: { before: pageParam } } })),
    getNextPageParam: (page) => (page.length < 100 ? undefined : page.at(-1)?.id),
  });
  const all = rows.data?.pages.flat() ?? [];
  return (
    <Box overflowX="auto">
      <Table.Root size="sm" aria-label="What happened">
        <Table.Header>
          <Table.Row bg="panel">
            {["when", "who", "what", "of", "from"].map((head) => (
              <Table.ColumnHeader key={head} color="faint" fontWeight="400">
                {head}
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {all.map((row) => (
            <Table.Row key={row.id} bg="panel">
              <Table.Cell whiteSpace="nowrap">{WHEN.format(new Date(row.at))}</Table.Cell>
              <Table.Cell>{row.by}</Table.Cell>
              <Table.Cell whiteSpace="nowrap">{row.what}</Table.Cell>
              <Table.Cell>{row.subject}</Table.Cell>
              <Table.Cell color="faint">{row.address}</Table.Cell>
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
      {all.length === 0 && <Text py="3">Nothing yet.</Text>}
      {rows.hasNextPage && <Act onClick={() => void rows.fetchNextPage()}>Older</Act>}
    </Box>
  );
}
