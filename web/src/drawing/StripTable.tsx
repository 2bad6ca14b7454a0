import { Table } from "@chakra-ui/react";
import type { Strip } from "../api/types";
import { useBench } from "../draft/store";
import { showLength } from "../units/show";
import { lanesOf } from "./StrengthStrip";

/** The strip as figures, for reading and for screen readers. */
export function StripTable({ strip }: { strip: Strip }) {
  const style = useBench((s) => s.style);
  const lanes = lanesOf(strip);
  return (
    <Table.Root size="sm" stickyHeader fontVariantNumeric="tabular-nums" aria-label="Strength by station">
      <Table.Header>
        <Table.Row bg="panel">
          <Table.ColumnHeader>behind front axle</Table.ColumnHeader>
          {lanes.map((lane) => (
            <Table.ColumnHeader key={lane.name} textAlign="end">
              {lane.name}
            </Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {strip.x_mm.map((x, i) => (
          <Table.Row key={x} bg="sheet">
            <Table.Cell>{showLength(x, style)}</Table.Cell>
            {lanes.map((lane) => (
              <Table.Cell key={lane.name} textAlign="end">
                {(lane.values[i] ?? 0).toFixed(3)}
              </Table.Cell>
            ))}
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}
