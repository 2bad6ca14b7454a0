import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got, Refused } from "../api/client";
import type { GoverningPlace, HandCheck, Style } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { showLength, showThickness } from "../units/show";
import { tell } from "../units/tell";

/** The engineer's sheet: the governing places step by step, what was assumed, and what the worst place hangs on. */
export function HandCheckSheet() {
  const jobId = useBench((s) => s.jobId);
  const { style } = usePick("style");
  const [sheet, setSheet] = useState<HandCheck | null>(null);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState("");
  const reckon = async () => {
    const { design, survey } = useBench.getState().history.now;
    setBusy(true);
    setTrouble("");
    try {
      setSheet(await got(api.POST("/api/handcheck", { body: { job_id: jobId ?? 0, design, survey } })));
    } catch (error) {
      setTrouble(error instanceof Refused ? error.message : "The sheet could not be reckoned.");
    }
    setBusy(false);
  };
  return (
    <Group title="Hand-check sheet">
      <Text fontSize="14px">
        For the engineer, in {style === "mm" ? "N, mm and MPa" : "lbf, in and psi"}: the governing places with every
        step of their stress, what was assumed, and which readings decide.
      </Text>
      <Act onClick={() => void reckon()} off={busy}>
        {busy ? "Reckoning…" : sheet ? "Reckon again" : "Reckon the sheet"}
      </Act>
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {sheet && <Sheet sheet={sheet} />}
    </Group>
  );
}

function Sheet({ sheet }: { sheet: HandCheck }) {
  const { style } = usePick("style");
  return (
    <Box role="region" aria-label="Hand-check sheet" fontSize="13px">
      {sheet.places.map((place) => (
        <Place key={place.check_id} place={place} />
      ))}
      <Text fontFamily="heading" fontWeight="600" mt="3">
        What was assumed
      </Text>
      {sheet.assumptions.map((a) => (
        <Text key={a.about}>
          {a.about}: {tell(a.says, style)}{" "}
          <Box as="span" color={a.source === "guess" || a.source === "missing" ? "removed" : "faint"}>
            ({a.source})
          </Box>
        </Text>
      ))}
      <Text fontFamily="heading" fontWeight="600" mt="3">
        What the worst place hangs on
      </Text>
      <table style={{ width: "100%", fontVariantNumeric: "tabular-nums" }}>
        <thead>
          <tr style={{ textAlign: "left" }}>
            <th>factor over its limit, with</th>
            <th>10 % less</th>
            <th>as it is</th>
            <th>10 % more</th>
          </tr>
        </thead>
        <tbody>
          {sheet.sensitive.map((s) => (
            <tr key={s.name}>
              <td>{s.name}</td>
              {[s.less, s.now, s.more].map((v, i) => (
                <td key={COLUMNS[i]}>{v === null || v === undefined ? "cannot be" : v.toFixed(2)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

const COLUMNS = ["less", "now", "more"];

function Place({ place }: { place: GoverningPlace }) {
  const { style } = usePick("style");
  const sizes = `${showLength(place.height_mm, style)} x ${showLength(place.width_mm, style)} x ${showThickness(place.wall_mm, style)}`;
  const plates = place.plates.map(
    (p) => `${p.role} ${showThickness(p.thickness_mm, style)}, ${(100 * p.share).toFixed(0)} % brought in`,
  );
  const stock = new Map(place.stock?.lines.map((line) => [line.name, line]));
  return (
    <Box borderTopWidth="1px" borderColor="rule" pt="2" mt="2">
      <Text fontWeight="600">
        {place.title}; {place.side} rail at {showLength(place.x_mm, style)}
      </Text>
      <Text color="faint">{[`${sizes}, ${place.steel}`, ...plates].join("; ")}</Text>
      {place.planned.lines.map((line) => {
        const own = inUnits(line, style);
        const before = stock.get(line.name);
        return (
          <Box key={line.name} py="0.5" style={{ overflowWrap: "anywhere" }}>
            <Text>
              {line.name}: <b>{digits(own.value)}</b> {own.unit}
              {before && (
                <Box as="span" color="faint">
                  {" "}
                  (stock {digits(inUnits(before, style).value)})
                </Box>
              )}
            </Text>
            <Text color="faint" fontVariantNumeric="tabular-nums">
              {line.formula} = {own.worked}
            </Text>
          </Box>
        );
      })}
    </Box>
  );
}

/** A step in the job's units. */
const inUnits = (line: GoverningPlace["planned"]["lines"][number], style: Style) => (style === "mm" ? line : line.inch);

/** Four digits that carry. */
const digits = (value: number) =>
  Math.abs(value) >= 1000
    ? Math.round(value).toLocaleString("en").replaceAll(",", " ")
    : `${Number(value.toPrecision(4))}`;
