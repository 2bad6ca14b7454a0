import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useRef } from "react";
import type { Pattern } from "../api/types";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { Dimensions, roomFor } from "../drawing/Dimensions";
import { outlinePath } from "../drawing/outlinePath";
import { useSize } from "../drawing/useSize";
import { showThickness } from "../units/show";
import { NestView } from "./NestView";
import { useOwnNest } from "./useNest";
import { usePatterns } from "./usePatterns";

const LINE = {
  CUT: { stroke: "ink", width: 2, dash: undefined },
  HOLE: { stroke: "touch", width: 1.6, dash: undefined },
  BEND: { stroke: "added", width: 1.4, dash: "10 4" },
  ETCH: { stroke: "faint", width: 1, dash: "3 3" },
} as const;

/** Etched text smaller than this on the screen is not readable there: the head says the same. */
const LEAST_TEXT = 12;

/** One pattern, as large as the bench allows, with its dimensions and datum. */
export default function PatternView() {
  const { patterns, chosen, gauge } = usePatterns();
  const style = useBench((s) => s.style);
  const sheet = useOwnNest()?.sheet;
  const pattern = gauge ?? patterns.find((p) => p.id === chosen);
  if (sheet) return <NestView sheet={sheet} />;
  if (!pattern) return <Text p="6">Pick a pattern on the left.</Text>;
  return (
    <Flex direction="column" height="100%" minH="0" p="4" gap="2">
      <Flex justify="space-between" gap="4" wrap="wrap">
        <Box>
          <Heading fontSize="24px">
            {pattern.title}
            {!gauge && `, ${pattern.side}`}
          </Heading>
          <Text fontSize="14px" color="faint">
            {pattern.thickness_mm !== null && `${showThickness(pattern.thickness_mm, style)} `}
            {pattern.steel}
            {pattern.count > 1 && `, ${pattern.count} off`}.{!gauge && ` Its line lies ${pattern.datum}.`}
          </Text>
          {pattern.hangs_on.length > 0 && <Text fontSize="14px">Hang it on: {pattern.hangs_on.join(", ")}.</Text>}
          {pattern.after && <Text fontSize="14px">{sentence(pattern.after)}</Text>}
          {pattern.formed && <Text fontSize="14px">{sentence(pattern.formed)}</Text>}
          {pattern.missing && (
            <Text fontSize="14px" color="removed">
              {sentence(pattern.missing)}
            </Text>
          )}
        </Box>
        <Legend />
      </Flex>
      <Box flex="1" minH="0">
        <Drawn pattern={pattern} />
      </Box>
      <Flex gap="5" wrap="wrap" fontSize="14px" fontVariantNumeric="tabular-nums">
        {pattern.dimensions
          .filter((d) => !d.span)
          .map((d) => (
            <Text key={d.name}>
              {d.name} <b>{d.text}</b>
            </Text>
          ))}
        <Text color="faint">Bold dimensions are critical, with their tolerance.</Text>
      </Flex>
    </Flex>
  );
}

const sentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

function Drawn({ pattern }: { pattern: Pattern }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const points = pattern.strokes.flatMap((s) => s.outline.vertices);
  const [w, h] = [Math.max(...points.map((p) => p.x)), Math.max(...points.map((p) => p.y))];
  const fit = (room: ReturnType<typeof roomFor>) =>
    Math.min((width - 20 - room.left - room.right) / w, (height - 20 - room.above - room.below) / h, 4);
  const plain = fit({ below: 60, above: 60, left: 60, right: 60 });
  const room = roomFor(pattern.dimensions, (x, y) => [x * plain, -y * plain]);
  const perMm = Math.max(fit(room), 0.01);
  const left = room.left + (width - room.left - room.right - w * perMm) / 2;
  const top = room.above + (height - room.above - room.below - h * perMm) / 2;
  const at = (x: number, y: number) => [left + x * perMm, top + (h - y) * perMm] as const;
  return (
    <Box ref={frame} height="100%">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={`${pattern.title}, ${pattern.side}`}>
          {pattern.strokes.map((stroke, i) => {
            const line = LINE[stroke.layer];
            return (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: strokes of one pattern keep their order
                key={i}
                d={outlinePath(stroke.outline, at, perMm)}
                fill={stroke.layer === "CUT" && stroke.outline.closed ? paint("panel") : "none"}
                stroke={paint(line.stroke)}
                strokeWidth={line.width}
                strokeDasharray={line.dash}
                data-line={stroke.layer}
              />
            );
          })}
          {pattern.labels
            .filter((label) => label.height_mm * perMm > LEAST_TEXT)
            .map((label) => (
              <text
                key={label.text}
                x={at(label.x, label.y)[0]}
                y={at(label.x, label.y)[1]}
                fill={paint("ink")}
                style={{ fontSize: label.height_mm * perMm }}
              >
                {label.text}
              </text>
            ))}
          <Dimensions
            dimensions={pattern.dimensions}
            callouts={pattern.callouts}
            at={at}
            box={{ left, top, right: left + w * perMm, bottom: top + h * perMm }}
          />
        </svg>
      )}
    </Box>
  );
}

function Legend() {
  return (
    <Flex gap="3" fontSize="13px" align="center">
      {(["CUT", "HOLE", "BEND", "ETCH"] as const).map((layer) => (
        <Flex key={layer} gap="1" align="center">
          <svg width="26" height="8" aria-hidden="true">
            <path
              d="M0 4H26"
              stroke={paint(LINE[layer].stroke)}
              strokeWidth={LINE[layer].width}
              strokeDasharray={LINE[layer].dash}
            />
          </svg>
          {layer.toLowerCase()}
        </Flex>
      ))}
    </Flex>
  );
}
