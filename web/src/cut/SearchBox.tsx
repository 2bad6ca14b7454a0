import { Box, Flex, Progress, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Act, Group } from "../fields/controls";
import type { useSearch } from "./useSearch";

type Props = {
  title: string;
  ask: string;
  /** What is counted, where it is not sets. */
  counted?: string;
  search: ReturnType<typeof useSearch>;
  find: () => void;
};

/** A search's button, its progress with a way out, its trouble and, once there, its answer. */
export function SearchBox({
  title,
  ask,
  search,
  find,
  counted,
  stock,
  children,
}: Props & { stock: ReactNode; children: ReactNode }) {
  const { progress, trouble, told, cancel, left } = search;
  return (
    <Group title={title}>
      {stock}
      {progress ? (
        <Flex gap="2" align="center">
          <Progress.Root
            flex="1"
            value={progress.done}
            max={Math.max(progress.total, 1)}
            aria-label={counted ? "Time gone" : "Sets tried"}
          >
            <Progress.Track bg="sheet">
              <Progress.Range bg="chalk" />
            </Progress.Track>
          </Progress.Root>
          <Text fontSize="13px" color="faint" whiteSpace="nowrap">
            {told || `${progress.done} of ${progress.total}${counted ? ` ${counted}` : ""}`}
            {!told && !counted && left !== null && left > 1 && `, at most ${Math.ceil(left)} s`}
          </Text>
          <Act onClick={cancel}>Cancel</Act>
        </Flex>
      ) : (
        <Act main onClick={find}>
          {ask}
        </Act>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {children && (
        <Box role="status" fontSize="14px" p="2" bg="sheet" mt="1">
          {children}
        </Box>
      )}
    </Group>
  );
}
