import { Box, Flex, Text } from "@chakra-ui/react";
import type { SectionDrawing } from "../api/types";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { showLength, showNumber } from "../units/show";

const H = 132;

/** The section under the pointer, stock beside planned at one scale, and what it is worth. */
export function SectionView() {
  const section = useShown((s) => s.result?.section);
  const { side, style } = useBench();
  return (
    <Box borderTopWidth="1px" borderColor="rule" px="3" py="2" aria-label="Section" as="section">
      <Flex justify="space-between" align="baseline">
        <Text fontFamily="heading" fontWeight="600" fontSize="17px">
          Section, {side}
        </Text>
        <Text fontSize="13px" color="faint">
          {section ? `${showLength(section.x_mm, style)} behind the front axle` : ""}
        </Text>
      </Flex>
      {section ? (
        <Both section={section} />
      ) : (
        <Text fontSize="14px">Not computed: walls of this rail are missing.</Text>
      )}
    </Box>
  );
}

function Both({ section }: { section: SectionDrawing }) {
  const levels = [...section.before, ...section.after].flatMap((s) => s.z_mm);
  const [low, high] = [Math.min(...levels), Math.max(...levels)];
  const perMm = Math.min((H - 24) / Math.max(high - low, 1), 0.75);
  const draw = (shapes: SectionDrawing["before"], left: number) =>
    shapes.map((shape, i) => (
      <polygon
        // biome-ignore lint/suspicious/noArrayIndexKey: pieces of one section keep their order
        key={`${shape.name}${i}`}
        points={shape.y_mm
          .map((y, j) => `${left + y * perMm},${H - 4 - ((shape.z_mm[j] ?? 0) - low) * perMm}`)
          .join(" ")}
        fill={shape.name === "rail" ? paint("ink") : "url(#fill-added)"}
        fillOpacity={shape.name === "rail" ? 0.75 : 1}
        stroke={shape.name === "rail" ? paint("ink") : paint("added")}
        strokeDasharray={shape.share < 1 ? "3 2" : undefined}
      />
    ));
  return (
    <Flex gap="2" align="start">
      <svg width="96" height={H} role="img" aria-label="Section before and after" style={{ flexShrink: 0 }}>
        <text x="2" y="12" fill={paint("faint")} style={{ fontSize: 12 }}>
          stock
        </text>
        <text x="54" y="12" fill={paint("faint")} style={{ fontSize: 12 }}>
          planned
        </text>
        {draw(section.before, 2)}
        {draw(section.after, 56)}
      </svg>
      <Box
        as="table"
        fontSize="13px"
        whiteSpace="nowrap"
        lineHeight="1.6"
        fontVariantNumeric="tabular-nums"
        width="100%"
      >
        <tbody>
          {section.figures.map((f) => (
            <tr key={f.name} title={`${showNumber(f.stock)} to ${showNumber(f.planned)} ${f.unit}`}>
              <Box as="th" textAlign="start" fontWeight="400" color="faint">
                {f.name}
              </Box>
              <Box as="td" textAlign="end" color="faint" pe="1.5">
                {showNumber(f.planned, 3)} <span style={{ fontSize: 12 }}>{f.unit}</span>
              </Box>
              <Box
                as="td"
                textAlign="end"
                fontWeight="600"
                color={f.planned < f.stock * (1 - 1e-6) ? "removed" : "ink"}
              >
                ×{(f.planned / f.stock).toFixed(2)}
              </Box>
            </tr>
          ))}
        </tbody>
      </Box>
    </Flex>
  );
}
