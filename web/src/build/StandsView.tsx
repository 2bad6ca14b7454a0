import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { type PointerEvent, useRef, useState } from "react";
import { useMay } from "../app/session";
import { paint } from "../app/theme";
import { reduce } from "../draft/document";
import { seenDraft, useBench, usePick } from "../draft/store";
import { linePath } from "../drawing/outlinePath";
import { useSize } from "../drawing/useSize";
import { showLength } from "../units/show";
import { showAmount } from "../units/tell";
import { type Moment, type Support, useStands } from "./useStands";

const NONE: Support[] = [];
const PAD = 26;
/** A stand is put down on whole steps of this, mm, as it is dragged. */
const STEP = 5;

/** The frame from above on its stands: the polygon that each part stands on, and where its mass is. */
export function StandsView() {
  const { found, moment, pick } = useStands();
  const style = useBench((s) => s.style);
  const moments = found?.moments ?? [];
  const now = moments[Math.min(moment, moments.length - 1)];
  return (
    <Flex direction="column" height="100%" minH="0" p="4" gap="2">
      <Heading fontSize="24px">How it stands</Heading>
      <Flex gap="1" direction="column" as="fieldset" aria-label="Moments" border="none" p="0" m="0">
        {moments.map((m, k) => (
          <label key={m.key} style={{ display: "flex", gap: "0.5rem", alignItems: "center", minHeight: "32px" }}>
            <input type="radio" name="moment" checked={m === now} onChange={() => pick(k)} />
            <Text fontSize="15px" color={m.stands.every((s) => s.holds) ? undefined : "removed"}>
              {m.name}: {m.stands.every((s) => s.holds) ? "stands" : "does not stand"}
            </Text>
          </label>
        ))}
      </Flex>
      <Box flex="1" minH="14rem">
        {now && <Drawn moment={now} before={moments[moments.indexOf(now) - 1]} />}
      </Box>
      {now?.stands.map((s) => (
        <Text key={s.body.name} fontSize="14px" color={s.holds ? undefined : "removed"}>
          {sentence(s.words)}: {showAmount({ value: s.body.mass_kg, kind: "mass" }, style)}
          {s.margin_mm != null &&
            `, its middle ${showLength(Math.abs(s.margin_mm), style)} ${s.margin_mm < 0 ? "outside of" : "inside"} its stands, ${showLength(s.needed_mm, style)} wanted`}
          .
          {s.loads.length > 0 &&
            ` Most on one: ${showAmount({ value: Math.max(...s.loads.map((l) => l.load_kg)), kind: "mass" }, style)}.`}
        </Text>
      ))}
      {found?.lifts?.map((l) => (
        <Text key={l.lift} fontSize="14px" color={l.holds ? undefined : "removed"}>
          {l.name} on the crane: {showAmount({ value: l.mass_kg, kind: "mass" }, style)}, {Math.round(100 * l.use)} % of
          what it may lift there; {l.words}
          {l.x_mm != null &&
            `, its middle ${showLength(Math.abs(l.off_mm), style)} ${l.off_mm < 0 ? "ahead of" : "behind"} the hook`}
          .
        </Text>
      ))}
      <Text fontSize="13px" color="faint">
        Masses are the survey's, in the centre plane, and the frame's own steel. Rated stands on flat concrete, never
        only a jack.
      </Text>
    </Flex>
  );
}

const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

function Drawn({ moment, before }: { moment: Moment; before?: Moment }) {
  const draft = useBench((s) => seenDraft(s));
  const { act, style } = usePick("act", "style");
  const may = useMay();
  const look = useStands((s) => s.look);
  const frame = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(frame);
  const [held, setHeld] = useState<{ index: number; x: number; y: number } | null>(null);
  const supports = draft.design.supports ?? NONE;
  const { left, right } = draft.survey.rails;
  const first = Math.min(left.stations[0]?.x_mm ?? 0, right.stations[0]?.x_mm ?? 0);
  const last = Math.max(left.stations.at(-1)?.x_mm ?? 1000, right.stations.at(-1)?.x_mm ?? 1000);
  const half = Math.max(left.web_y_mm, right.web_y_mm) + 80;
  const perMm = Math.max(Math.min((width - 2 * PAD) / (last - first), (height - 2 * PAD) / (2 * half)), 0.001);
  const at = (x: number, y: number) => [PAD + (x - first) * perMm, height / 2 - y * perMm] as const;
  const placed = (support: Support, index: number) =>
    held?.index === index ? { ...support, x_mm: held.x, y_mm: held.y } : support;
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (!held) return;
    const box = event.currentTarget.getBoundingClientRect();
    const step = (mm: number) => Math.round(mm / STEP) * STEP;
    const x = step(Math.min(Math.max(first + (event.clientX - box.left - PAD) / perMm, first), last));
    const y = step((height / 2 - (event.clientY - box.top)) / perMm);
    setHeld({ ...held, x, y });
    void look(moved(held.index, x, y));
  };
  const moved = (index: number, x: number, y: number) => {
    const path = ["design", "supports", index] as const;
    const next = reduce(draft, { kind: "set", path: [...path, "x_mm"], value: x });
    return reduce(next, { kind: "set", path: [...path, "y_mm"], value: y });
  };
  const drop = () => {
    if (!held) return;
    const value = moved(held.index, held.x, held.y).design;
    setHeld(null);
    act({ kind: "design", value });
  };
  return (
    <Box ref={frame} height="100%" minH="14rem">
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label="Frame on its stands, from above"
          style={{ touchAction: "none" }}
          onPointerMove={move}
          onPointerUp={drop}
          onPointerCancel={() => setHeld(null)}
        >
          {[left, right].map((rail, k) => {
            const side = k === 0 ? -1 : 1;
            const wide = rail.stations[0]?.width_mm ?? 60;
            const inner = rail.web_y_mm + (rail.opens === "inward" ? -wide : wide);
            return moment.stands.map((s) => (
              <path
                key={`${side} ${s.body.name}`}
                d={linePath(
                  [
                    at(s.body.start_mm, side * rail.web_y_mm),
                    at(s.body.end_mm, side * rail.web_y_mm),
                    at(s.body.end_mm, side * inner),
                    at(s.body.start_mm, side * inner),
                  ],
                  true,
                )}
                fill={paint("panel")}
                stroke={paint("ink")}
                strokeWidth="1.5"
              />
            ));
          })}
          {moment.stands.map((s) => (
            <g key={s.body.name}>
              {s.corners.length > 1 && (
                <path
                  d={linePath(
                    s.corners.map((c) => at(c.x_mm, c.y_mm)),
                    true,
                  )}
                  fill={s.holds ? paint("added") : paint("removed")}
                  fillOpacity="0.14"
                  stroke={s.holds ? paint("added") : paint("removed")}
                  strokeWidth="1.5"
                  strokeDasharray={s.holds ? undefined : "7 4"}
                />
              )}
              <Middle
                at={at(s.body.x_mm, s.body.y_mm)}
                words={showAmount({ value: s.body.mass_kg, kind: "mass" }, style)}
              />
            </g>
          ))}
          {before?.stands.map((s) => {
            const [x, y] = at(s.body.x_mm, s.body.y_mm);
            return (
              <g key={`before ${s.body.name}`}>
                <circle
                  cx={x}
                  cy={y}
                  r="7"
                  fill="none"
                  stroke={paint("faint")}
                  strokeWidth="1.5"
                  strokeDasharray="3 3"
                />
                <text
                  x={x}
                  y={y + 22}
                  className="halo"
                  fill={paint("faint")}
                  textAnchor="middle"
                  style={{ fontSize: 12 }}
                >
                  before
                </text>
              </g>
            );
          })}
          {supports.map((support, index) => {
            const own = placed(support, index);
            const [x, y] = at(own.x_mm, own.y_mm);
            return (
              <g key={support.id}>
                <title>{support.name}</title>
                <rect
                  x={x - 9}
                  y={y - 9}
                  width="18"
                  height="18"
                  fill={support.kind === "tie-down" ? paint("sheet") : paint("chalk")}
                  stroke={paint("chalk")}
                  strokeWidth="2"
                  transform={support.kind === "leg" ? `rotate(45 ${x} ${y})` : undefined}
                  style={{ cursor: may.design ? "grab" : undefined }}
                  onPointerDown={(event) => {
                    if (!may.design) return;
                    event.currentTarget.ownerSVGElement?.setPointerCapture(event.pointerId);
                    setHeld({ index, x: support.x_mm, y: support.y_mm });
                  }}
                />
                {held?.index === index && (
                  <text x={x + 14} y={y - 12} className="halo" fill={paint("ink")} style={{ fontSize: 13 }}>
                    {showLength(Math.abs(own.x_mm), style)} {own.x_mm < 0 ? "ahead" : "behind"}
                  </text>
                )}
              </g>
            );
          })}
        </svg>
      )}
    </Box>
  );
}

/** Where a part's mass is: a ring with a cross. */
function Middle({ at, words }: { at: readonly [number, number]; words: string }) {
  const [x, y] = at;
  return (
    <g>
      <circle cx={x} cy={y} r="8" fill={paint("sheet")} stroke={paint("ink")} strokeWidth="2" />
      <path d={`M${x - 12} ${y}h24M${x} ${y - 12}v24`} stroke={paint("ink")} strokeWidth="1.2" />
      <text x={x + 12} y={y - 10} className="halo" fill={paint("ink")} style={{ fontSize: 13 }}>
        {words}
      </text>
    </g>
  );
}
