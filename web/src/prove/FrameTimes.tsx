import { Box } from "@chakra-ui/react";
import type { FrameAt, Style } from "../api/types";
import { useBench } from "../draft/store";
import { fine } from "./fine";

type Line = { name: string; of: (at: FrameAt, style: Style) => string };

const way = (mm: number, style: Style, plus: string, minus: string) =>
  `${fine(Math.abs(mm), style)} ${mm < 0 ? minus : plus}`;

const LINES: readonly Line[] = [
  { name: "lengths", of: (t) => String(t.lengths) },
  { name: "diagonals apart", of: (t, s) => (t.square ? fine(Math.abs(t.square.off_mm), s) : "") },
  { name: "out of square", of: (t) => (t.square ? `${Math.abs(t.square.lozenge_deg).toFixed(2)} deg` : "") },
  { name: "bent sideways", of: (t, s) => (t.sway ? way(t.sway.off_mm, s, "to the right", "to the left") : "") },
  { name: "twisted", of: (t, s) => (t.levels ? way(t.levels.twist_mm, s, "right up", "left up") : "") },
  { name: "sags", of: (t, s) => (t.levels ? way(t.levels.sag_mm, s, "down", "up") : "") },
  ...(["front", "rear"] as const).flatMap((hub): Line[] => [
    {
      name: `${hub} axle points`,
      of: (t) => {
        const axle = t.axles.find((a) => a.hub === hub);
        return axle ? `${Math.abs(axle.thrust_deg).toFixed(2)} deg ${axle.thrust_deg < 0 ? "left" : "right"}` : "";
      },
    },
    {
      name: `${hub} axle stands`,
      of: (t, s) => {
        const axle = t.axles.find((a) => a.hub === hub);
        return axle ? way(axle.right_mm, s, "right", "left") : "";
      },
    },
    {
      name: `${hub} hub to hub`,
      of: (t, s) => {
        const axle = t.axles.find((a) => a.hub === hub);
        return axle ? fine(axle.apart_mm, s) : "";
      },
    },
  ]),
];

/** The frame's shape each time that it was measured, side by side. */
export function FrameTimes({ times }: { times: readonly FrameAt[] }) {
  const style = useBench((s) => s.style);
  const rows = LINES.map((line) => ({ name: line.name, cells: times.map((t) => line.of(t, style)) }));
  return (
    <Box
      as="table"
      aria-label="The frame each time"
      width="100%"
      fontSize="14px"
      fontVariantNumeric="tabular-nums"
      mt="2"
      css={{ "& td, & th": { verticalAlign: "top", paddingInlineEnd: "8px", textAlign: "left", fontWeight: 400 } }}
    >
      <Box as="thead" color="faint">
        <tr>
          <th>frame</th>
          {times.map((t) => (
            <th key={t.when}>{t.name}</th>
          ))}
        </tr>
      </Box>
      <tbody>
        {rows
          .filter((row) => row.cells.some(Boolean))
          .map((row) => (
            <tr key={row.name}>
              <td>{row.name}</td>
              {times.map((t, k) => (
                <td key={t.when}>{row.cells[k]}</td>
              ))}
            </tr>
          ))}
      </tbody>
    </Box>
  );
}
