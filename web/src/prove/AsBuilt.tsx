import { Box, Flex, Text } from "@chakra-ui/react";
import { useCatalogue } from "../api/catalogue";
import type { AxleAsBuilt, Built } from "../api/types";
import { useBench } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { shown } from "../margins/group";
import { useBuilt } from "./useBuilt";

/** Is what was built what was planned, does it matter, and what corrects it: solved from the readings on request. */
export function AsBuilt() {
  const { busy, found, trouble, solve } = useBuilt();
  return (
    <Group title="What corrects it">
      <Text fontSize="14px">
        Joints, link lengths and wheels as they were read go into the linkage; turns and shims are tried there before
        they are told.
      </Text>
      <Box my="1">
        <Act main onClick={() => void solve()} off={busy}>
          {busy ? "Solving…" : found ? "Solve again" : "Solve what was read"}
        </Act>
      </Box>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {found && <Found found={found} />}
    </Group>
  );
}

function Found({ found }: { found: Built }) {
  const style = useBench((s) => s.style);
  const words = useCatalogue();
  const told = (value: number | null | undefined, unit: string) =>
    value == null ? "not computed" : shown(value, unit, style, words);
  const worse = found.worse
    .map((row) => ({ row, planned: told(row.planned, row.unit), built: told(row.built, row.unit) }))
    .filter((w) => w.planned !== w.built || w.row.built_verdict !== w.row.planned_verdict);
  const none = found.axles.length === 0 && found.leaning.length === 0;
  return (
    <Box role="region" aria-label="As built" fontSize="14px">
      {none && (
        <Text>
          Nothing of joints, links or wheels was read yet: the readings below the drawing, both sides, say where each
          axle stands.
        </Text>
      )}
      {found.leaning.map((row) => (
        <Box key={`${row.about}/${row.name}`} py="1" borderTopWidth="1px" borderColor="rule">
          <Text fontWeight="600">
            {row.about}: {row.name.toLowerCase()}
          </Text>
          <Text color={row.matters ? "removed" : undefined}>{row.words}</Text>
          <Listed rows={row.corrections} />
        </Box>
      ))}
      {found.axles.map((axle) => (
        <AxleRow key={axle.name} axle={axle} />
      ))}
      {worse.length > 0 && (
        <Box py="1" borderTopWidth="1px" borderColor="rule">
          <Text fontWeight="600">Does it matter? With both sides as the one that was read:</Text>
          {worse.map(({ row, planned, built }) => (
            <Text key={`${row.id}${row.side}`}>
              {row.title}, as the {row.side}: {planned} → <b>{built}</b>
              {row.built_verdict === row.planned_verdict ? `, still ${row.built_verdict}` : `, ${row.built_verdict}`}
            </Text>
          ))}
        </Box>
      )}
    </Box>
  );
}

function AxleRow({ axle }: { axle: AxleAsBuilt }) {
  return (
    <Box py="1" borderTopWidth="1px" borderColor="rule" aria-label={`As built: ${axle.name}`} role="group">
      <Flex justify="space-between">
        <Text fontWeight="600">{axle.name}</Text>
        <Text color="faint" fontSize="13px">
          from {axle.read} {axle.read === 1 ? "reading" : "readings"}
        </Text>
      </Flex>
      {axle.outcomes.map((o) => (
        <Flex key={o.name} justify="space-between" gap="2" color={Math.abs(o.off) > o.allowed ? "removed" : undefined}>
          <span>
            {o.name}
            {o.measured && " (read)"}
          </span>
          <Box as="span" fontVariantNumeric="tabular-nums" textAlign="right">
            {o.words}
          </Box>
        </Flex>
      ))}
      {axle.words && <Text color="faint">{axle.words}</Text>}
      {axle.corrections.map((c, k) => (
        <Box key={c.words} mt="1" ps="2" borderLeftWidth="3px" borderColor={c.inside ? "added" : "rule"}>
          <Text>
            <b>{c.inside ? `${k + 1}.` : "Better, not inside:"}</b> {c.words}
          </Text>
          <Text fontSize="13px" color="faint">
            leaves {c.left.map((o) => `${o.name} ${o.words.split(" of ")[0]}`).join("; ")}
          </Text>
        </Box>
      ))}
    </Box>
  );
}

function Listed({ rows }: { rows: readonly string[] }) {
  return rows.map((row) => (
    <Text key={row} ps="2" borderLeftWidth="3px" borderColor="added">
      {row}
    </Text>
  ));
}
