import { Table } from "@chakra-ui/react";
import type { Strip, Style } from "../api/types";
import { useBench } from "../draft/store";
import { beside } from "../units/figure";
import { showLength } from "../units/show";

/** The strip as figures, for reading and for screen readers. */
export function StripTable({ strip }: { strip: Strip }) {
  const style = useBench((s) => s.style);
  const columns = columnsOf(strip, style);
  return (
    <Table.Root size="sm" stickyHeader fontVariantNumeric="tabular-nums" aria-label="Strength by station">
      <Table.Header>
        <Table.Row bg="panel">
          <Table.ColumnHeader>behind front axle</Table.ColumnHeader>
          {columns.map((column) => (
            <Table.ColumnHeader key={column.name} textAlign="end">
              {column.name}
            </Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {strip.x_mm.map((x, i) => (
          <Table.Row key={x} bg="sheet">
            <Table.Cell>{showLength(x, style)}</Table.Cell>
            {columns.map((column) => (
              <Table.Cell key={column.name} textAlign="end">
                {(column.values[i] ?? 0).toFixed(column.digits)}
              </Table.Cell>
            ))}
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}

type Column = { name: string; values: readonly number[]; digits: number };

/** Every property against stock, and what the chosen load case does, station by station. */
function columnsOf(strip: Strip, style: Style): Column[] {
  const ratio = (name: string, values: readonly number[]) => ({ name: `${name} / stock`, values, digits: 3 });
  const columns = [
    ratio("A", strip.area),
    ratio("I", strip.inertia),
    ratio("S top", strip.modulus_top),
    ratio("S bottom", strip.modulus_bottom),
    ratio("web area", strip.shear_area),
    ratio("J", strip.torsion_constant),
  ];
  const inUnit = (name: string, unit: string, values: readonly number[], digits: number) => ({
    name: `${name}, ${beside(0, unit, style).unit}`,
    values: values.map((v) => beside(v, unit, style).value),
    digits,
  });
  if (strip.life) columns.push({ name: "fatigue life / stock", values: strip.life, digits: 2 });
  if (!strip.moment_nm || !strip.stress_mpa || !strip.stress_stock_mpa || !strip.use) return columns;
  return [
    ...columns,
    inUnit("moment", "N m", strip.moment_nm, 0),
    inUnit("stress", "MPa", strip.stress_mpa, 1),
    inUnit("stress in stock", "MPa", strip.stress_stock_mpa, 1),
    { name: "use of yield/1.5", values: strip.use, digits: 3 },
  ];
}
