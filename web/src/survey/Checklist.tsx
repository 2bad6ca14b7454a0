import { Box, Flex, Text } from "@chakra-ui/react";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { openAt } from "../fields/openAt";

/** What is left to measure, by what it is good for; on paper too, to take to the vehicle. */
export function Checklist() {
  const groups = useShown((s) => s.result?.checklist ?? NONE);
  const optionId = useBench((s) => s.optionId);
  return (
    <Group
      title="To measure, by what it is good for"
      extra={<FileLink href={`/api/options/${optionId}/checklist.pdf`} name="On paper" />}
    >
      {groups.map((group) => {
        const left = group.items.filter((item) => !item.taken);
        return (
          <Box as="details" key={group.id} borderBottomWidth="1px" borderColor="rule" py="1">
            <Flex as="summary" gap="2" align="baseline" cursor="pointer" minH="28px">
              <Text flex="1" fontSize="15px">
                {group.title}
              </Text>
              <Text fontSize="14px" color={left.length ? "ink" : "added"} fontVariantNumeric="tabular-nums">
                {left.length ? `${group.items.length - left.length} of ${group.items.length}` : "all in"}
              </Text>
            </Flex>
            <Text fontSize="13px" color="faint">
              {group.says}
            </Text>
            {left.map((item) => (
              <Box
                as="button"
                key={item.pointer}
                display="block"
                textAlign="start"
                py="1"
                fontSize="14px"
                onClick={() => openAt(item.pointer)}
              >
                ☐ {item.name}
              </Box>
            ))}
          </Box>
        );
      })}
    </Group>
  );
}
