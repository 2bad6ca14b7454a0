import { Box, Table } from "@chakra-ui/react";
import { useCatalogue } from "../api/catalogue";
import type { CompareRow, SideBySide, Style } from "../api/types";
import { beside } from "../units/figure";
import { showNumber } from "../units/show";

/** One row a figure, one column an option; the better one is set in bold and marked, not only coloured. */
export function RatioTable({ data, style }: { data: SideBySide; style: Style }) {
  const { reads } = useCatalogue();
  const inWords = (unit: string) => (reads[unit]?.text.replace("{value}", "").trim() || unit).trim();
  return (
    <Box overflowX="auto" mt="3">
      <Table.Root size="sm" fontVariantNumeric="tabular-nums" aria-label="Options compared">
        <Table.Header>
          <Table.Row bg="panel">
            <Table.ColumnHeader>figure</Table.ColumnHeader>
            {data.options.map((o) => (
              <Table.ColumnHeader key={o.id} textAlign="end">
                {o.name}
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {data.rows.map((row) => (
            <Table.Row key={row.key} bg="sheet">
              <Table.Cell>
                {row.name} <span className="row-tail">{inWords(beside(0, row.unit, style).unit)}</span>
              </Table.Cell>
              {row.values.map((value, i) => (
                <Table.Cell key={data.options[i]?.id} textAlign="end" fontWeight={isBest(row, i) ? "700" : "400"}>
                  {isBest(row, i) && "● "}
                  {row.failing?.[i] && "fails: "}
                  {value === null ? "not computed" : showNumber(beside(value, row.unit, style).value, 3)}
                </Table.Cell>
              ))}
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
    </Box>
  );
}

/** The best value that does not fail, where there is a choice. */
function isBest(row: CompareRow, at: number): boolean {
  const value = row.values[at] ?? null;
  if (value === null || row.failing?.[at] || !row.better) return false;
  const known = row.values.filter((v): v is number => v !== null);
  const sound = row.values.filter((v, i): v is number => v !== null && !row.failing?.[i]);
  const best = row.better === "more" ? Math.max(...sound) : Math.min(...sound);
  return value === best && known.some((v) => Math.abs(v - best) > 1e-3 * Math.abs(best));
}
