import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useRef } from "react";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { linePath, outlinePath } from "../drawing/outlinePath";
import { useSize } from "../drawing/useSize";
import { showLength } from "../units/show";
import type { NestPlan } from "./useNest";

const LEAST = 14;

type Nested = NestPlan["sheets"][number];

/** One sheet with the plates that come out of it, its length along the bench. */
export function NestView({ sheet }: { sheet: Nested }) {
  const style = useBench((s) => s.style);
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const perMm = Math.max(Math.min((width - 20) / sheet.long_mm, (height - 20) / sheet.wide_mm), 0.001);
  const at = (x: number, y: number) => [10 + x * perMm, 10 + (sheet.wide_mm - y) * perMm] as const;
  const corners = sheet.corners.map((c) => at(c.along_mm, c.across_mm));
  const numbers = numbered(sheet);
  const end = sheet.offcut_id == null ? sheet.used_long_mm : null;
  return (
    <Flex direction="column" height="100%" minH="0" p="4" gap="2">
      <Box>
        <Heading fontSize="24px">{sheet.name}</Heading>
        <Text fontSize="14px" color="faint">
          {sheet.steel}, {showLength(sheet.long_mm, style)} x {showLength(sheet.wide_mm, style)}: {sheet.pieces.length}{" "}
          plates, {Math.round(100 * sheet.filled)} % of it.{end !== null && " The dashed line is where it is cut off."}
        </Text>
      </Box>
      <Box ref={frame} flex="1" minH="12rem">
        {width > 0 && (
          <svg width={width} height={height} role="img" aria-label={`${sheet.name}, plates as they lie`}>
            <path d={linePath(corners, true)} fill={paint("panel")} stroke={paint("rule")} strokeWidth={1.5} />
            {end !== null && end < sheet.long_mm && (
              <path
                d={linePath([at(end, 0), at(end, sheet.wide_mm)])}
                stroke={paint("chalk")}
                strokeWidth={1.5}
                strokeDasharray="8 5"
              />
            )}
            {sheet.pieces.map((piece, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: plates of one sheet keep their order
              <g key={i}>
                <title>
                  {piece.name}, {piece.side}
                </title>
                <path
                  d={outlinePath(piece.outline, at, perMm)}
                  fill={paint("sheet")}
                  stroke={paint("ink")}
                  strokeWidth={1.2}
                />
                {piece.holes.map((hole, k) => (
                  <path
                    // biome-ignore lint/suspicious/noArrayIndexKey: holes of one plate keep their order
                    key={k}
                    d={outlinePath(hole, at, perMm)}
                    fill={paint("panel")}
                    stroke={paint("touch")}
                    strokeWidth={1}
                  />
                ))}
                <Numbered piece={piece} number={numbers.get(piece.piece_id) ?? 0} at={at} perMm={perMm} />
              </g>
            ))}
          </svg>
        )}
      </Box>
      <Box as="ol" fontSize="14px" overflowY="auto" maxH="40%" style={{ columns: "16rem" }} aria-label="Plates on it">
        {[...numbers].map(([id, number]) => {
          const own = sheet.pieces.filter((piece) => piece.piece_id === id);
          const times = own.length > 1 ? `, ${own.length} of it` : "";
          return (
            <li key={id}>
              <b>{number}</b> {own[0]?.name}, {own[0]?.side}
              {times}
            </li>
          );
        })}
      </Box>
    </Flex>
  );
}

/** Equal plates share a number. */
function numbered(sheet: Nested): Map<string, number> {
  const ids = [...new Set(sheet.pieces.map((piece) => piece.piece_id))].toSorted();
  return new Map(ids.map((id, i) => [id, i + 1]));
}

type Numbering = {
  piece: Nested["pieces"][number];
  number: number;
  at: (x: number, y: number) => readonly [number, number];
  perMm: number;
};

/** A plate's number in its middle, where it is large enough to hold one. */
function Numbered({ piece, number, at, perMm }: Numbering) {
  const xs = piece.outline.vertices.map((v) => v.x);
  const ys = piece.outline.vertices.map((v) => v.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  if (Math.min(x1 - x0, y1 - y0) * perMm < LEAST) return null;
  const [x, y] = at((x0 + x1) / 2, (y0 + y1) / 2);
  return (
    <text x={x} y={y + 4} textAnchor="middle" fill={paint("ink")} style={{ fontSize: 12 }}>
      {number}
    </text>
  );
}
