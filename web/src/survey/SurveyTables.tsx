import { Box, Flex } from "@chakra-ui/react";
import { SURVEY_TABS, usePick } from "../draft/store";
import { CrossmemberTable } from "./CrossmemberTable";
import { FeatureTable } from "./FeatureTable";
import { LoadTables } from "./LoadTables";
import { StationTable } from "./StationTable";

/** The survey's tables under the sheet: rails, features and loads. */
export default function SurveyTables() {
  const { surveyTab: tab, put } = usePick("surveyTab", "put");
  return (
    <Flex direction="column" height="100%" minH="0" bg="panel" borderTopWidth="1px" borderColor="rule">
      <Flex role="tablist" px="3" pt="1" gap="1" wrap={{ base: "wrap", md: "nowrap" }}>
        {SURVEY_TABS.map((name) => (
          <Box
            key={name}
            as="button"
            role="tab"
            aria-selected={tab === name}
            px="3"
            minH="34px"
            fontFamily="heading"
            fontWeight="600"
            fontSize="16px"
            borderBottomWidth="3px"
            borderColor={tab === name ? "chalk" : "transparent"}
            onClick={() => put({ surveyTab: name })}
          >
            {name}
          </Box>
        ))}
      </Flex>
      <Box flex="1" minH="0" overflow="auto" px="3" py="2">
        {tab === "Rail stations" && <StationTable />}
        {tab === "Features" && <FeatureTable />}
        {tab === "Crossmembers" && <CrossmemberTable />}
        {tab === "Masses and seats" && <LoadTables />}
      </Box>
    </Flex>
  );
}
