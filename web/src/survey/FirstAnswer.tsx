import { Box, Flex, Text } from "@chakra-ui/react";
import { useMay } from "../app/session";
import { shownDraft, useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { useFirstAnswer } from "../target/useFirstAnswer";
import { showLength } from "../units/show";
import { tell } from "../units/tell";

/** What the readings so far are good for, as long as some of them are assumed: the notch, and other bump travels beside it. */
export function FirstAnswer() {
  const { style, act, put } = usePick("style", "act", "put");
  const design = useBench((s) => s.history.now.design);
  const names = useBench((s) => {
    const { design, survey } = shownDraft(s);
    return Object.keys({ ...survey.assumed, ...design.assumed }).length;
  });
  const may = useMay();
  const answer = useFirstAnswer(names > 0);
  if (names === 0) return null;
  const cut = answer && answer.operations.length > 0;
  const planned = (design.operations ?? []).length > 0;
  const bump = design.targets?.bump_mm;
  return (
    <Group title="First answer">
      <Box p="2" bg="sheet" borderLeftWidth="4px" borderColor="chalk">
        <Text fontSize="15px">{answer ? tell(answer.words, style) : "Working it out."}</Text>
        {answer && answer.needed.length > 0 && (
          <table className="figures" aria-label="Notch for other bump travels">
            <thead>
              <tr>
                <th scope="col">bump travel</th>
                <th scope="col" style={{ textAlign: "end" }}>
                  deep
                </th>
                <th scope="col" style={{ textAlign: "end" }}>
                  wide
                </th>
              </tr>
            </thead>
            <tbody>
              {answer.needed.map((row) => (
                <tr key={row.bump_mm}>
                  <th scope="row">
                    {showLength(row.bump_mm, style)} {row.bump_mm === bump && <span className="row-tail">planned</span>}
                  </th>
                  <td>{row.depth_mm > 0 ? showLength(row.depth_mm, style) : "none"}</td>
                  <td>{row.depth_mm > 0 ? showLength(row.width_mm, style) : ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <Text fontSize="13px" color="faint" mt="1">
          It rests on {names} assumed values: they stand in slanted ink until someone types them. Factors of safety wait
          for the masses.
        </Text>
        <Flex gap="2" mt="2" wrap="wrap">
          {may.design && cut && !planned && (
            <Act main onClick={() => act({ kind: "set", path: ["design", "operations"], value: answer.operations })}>
              Cut it so
            </Act>
          )}
          {planned && <Act onClick={() => put({ stage: "cut" })}>See the cut</Act>}
          {planned && <Act onClick={() => put({ stage: "patterns" })}>Print the templates</Act>}
        </Flex>
      </Box>
    </Group>
  );
}
