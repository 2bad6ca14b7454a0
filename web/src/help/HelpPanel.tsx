import { Box, Dialog, Flex, Heading, Portal, Tabs, Text } from "@chakra-ui/react";
import { useState } from "react";
import Markdown from "react-markdown";
import { KEYS } from "../bench/keys";
import { Act } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { type HelpSheet, setSingleKeys, singleKeys, useHelp } from "./helpStore";
import { TermPicture } from "./TermPicture";
import { useTerms } from "./terms";

const NAMES: Record<HelpSheet, string> = { words: "Words", how: "How to", keys: "Keys" };

const PAGES = Object.entries(
  import.meta.glob<string>("../../../docs/how-to-*.md", { query: "?raw", import: "default", eager: true }),
).map(([path, text]) => ({ id: path, title: text.match(/^#\s+(.*)$/m)?.[1] ?? path, text }));

/** Help inside: the words of the trade, how the main jobs are done, and the keys. */
export default function HelpPanel() {
  const { sheet, put } = useHelp();
  return (
    <Dialog.Root
      open={sheet !== null}
      onOpenChange={({ open }) => !open && put({ sheet: null })}
      size="xl"
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" color="ink" maxH="86vh">
            <Tabs.Root
              value={sheet ?? "words"}
              onValueChange={({ value }) => put({ sheet: value as HelpSheet })}
              display="flex"
              flexDirection="column"
              minH="0"
            >
              <Dialog.Header pb="0" display="flex" gap="4" alignItems="center">
                <Dialog.Title fontFamily="heading">Help</Dialog.Title>
                <Tabs.List flex="1">
                  {Object.entries(NAMES).map(([id, name]) => (
                    <Tabs.Trigger key={id} value={id}>
                      {name}
                    </Tabs.Trigger>
                  ))}
                </Tabs.List>
                <Act onClick={() => put({ sheet: null, look: 0 })}>Look round in two minutes</Act>
                <Act onClick={() => put({ sheet: null })}>Close</Act>
              </Dialog.Header>
              <Dialog.Body overflowY="auto" tabIndex={0} aria-label={NAMES[sheet ?? "words"]}>
                <Tabs.Content value="words">
                  <Words />
                </Tabs.Content>
                <Tabs.Content value="how">
                  <HowTo />
                </Tabs.Content>
                <Tabs.Content value="keys">
                  <Keys />
                </Tabs.Content>
              </Dialog.Body>
            </Tabs.Root>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Words() {
  const { word, beside, put } = useHelp();
  const terms = useTerms();
  const sought = word.trim().toLowerCase();
  const shown = terms.filter((t) => `${t.name} ${t.says} ${t.theme}`.toLowerCase().includes(sought));
  const themes = [...new Set(shown.map((t) => t.theme))];
  return (
    <>
      <Flex gap="3" align="end" mb="3">
        <Box flex="1">
          <PlainWords label="Search words" value={word} take={(text) => put({ word: text })} />
        </Box>
        <Act pressed={beside} onClick={() => put({ beside: !beside })}>
          Tell the word of the field I am in
        </Act>
      </Flex>
      {shown.length === 0 && <Text>No word has '{word}' in it.</Text>}
      {themes.map((theme) => (
        <Box as="section" key={theme} mb="3" aria-label={theme}>
          <Heading as="h3" fontSize="17px" mb="1">
            {theme}
          </Heading>
          <Box as="dl" display="grid" gridTemplateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="3">
            {shown
              .filter((t) => t.theme === theme)
              .map((t) => (
                <Flex key={t.id} gap="3" bg="sheet" p="2">
                  <TermPicture term={t} width={104} />
                  <Box fontSize="14px" lineHeight="1.3">
                    <Text as="dt" fontWeight="600">
                      {t.name}
                    </Text>
                    <Text as="dd">{t.says}</Text>
                  </Box>
                </Flex>
              ))}
          </Box>
        </Box>
      ))}
    </>
  );
}

function HowTo() {
  const [open, setOpen] = useState(PAGES[0]?.id ?? "");
  const page = PAGES.find((p) => p.id === open);
  return (
    <Flex gap="4" direction={{ base: "column", md: "row" }}>
      <Flex direction="column" gap="2" minW="12rem" as="nav" aria-label="How-to pages">
        {PAGES.map((p) => (
          <Act key={p.id} pressed={p.id === open} onClick={() => setOpen(p.id)}>
            {p.title}
          </Act>
        ))}
      </Flex>
      <Box flex="1" className="how-to" fontSize="15px">
        <Markdown>{page?.text ?? ""}</Markdown>
      </Box>
    </Flex>
  );
}

function Keys() {
  const [single, setSingle] = useState(singleKeys());
  const turn = () => {
    setSingleKeys(!single);
    setSingle(!single);
  };
  return (
    <>
      <Act pressed={single} onClick={turn}>
        Letters and digits act by themselves
      </Act>
      <Box as="table" mt="3" fontSize="15px" w="100%">
        <tbody>
          {KEYS.map(([keys, does]) => (
            <tr key={keys}>
              <Box as="th" textAlign="start" pe="4" py="1" whiteSpace="nowrap">
                {keys}
              </Box>
              <td>{does}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </>
  );
}
