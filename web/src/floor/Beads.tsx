import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { paint } from "../app/theme";
import { outlinePath } from "../drawing/outlinePath";
import { showLength } from "../units/show";
import { Big } from "./Big";
import { clockFace, dropTimer, startTimer, useTimers } from "./clock";
import { Bar } from "./StepView";
import type { Bead, FloorPicture, FloorStep, HeatPlan } from "./types";
import type { Floor } from "./useFloor";

const WIDE = 640;
const MARGIN = 14;

/** How a step is welded: bead after bead, each where the metal is coolest, waiting for what is still hot. */
export function Beads({ floor, step }: { floor: Floor; step: FloorStep }) {
  const operation = step.operation ?? "";
  const plan = useHeat(floor.optionId, operation);
  if (plan.isError) return <Bar colour="touch">The order of its beads is not known here: {plan.error.message}.</Bar>;
  if (!plan.data) return <Text fontSize="20px">Working out the order of its beads</Text>;
  const picture = floor.sheet.pictures.find((p) => p.operation === operation);
  return <Shown floor={floor} step={step} plan={plan.data} picture={picture} />;
}

export function useHeat(optionId: number, operation: string) {
  return useQuery({
    queryKey: ["floor", optionId, "heat", operation],
    staleTime: 300_000,
    enabled: operation !== "",
    queryFn: () => {
      const params = { path: { option_id: optionId, operation } };
      return got(api.GET("/api/options/{option_id}/heat/{operation}", { params }));
    },
  });
}

function Shown(props: { floor: Floor; step: FloorStep; plan: HeatPlan; picture: FloorPicture | undefined }) {
  const { floor, step, plan, picture } = props;
  const seams = plan.steps.find((s) => s.key === step.key)?.seams ?? [];
  const own = plan.beads.filter((b) => seams.includes(b.seam));
  const at = `${floor.optionId}/${plan.operation}/${step.key}`;
  const [laid, setLaid] = useState(() => laidBefore(at));
  const cool = `cool/${at}`;
  const waits = useTimers().some((t) => t.id === cool);
  const now = own[laid];
  const go = (to: number) => {
    const next = Math.max(0, Math.min(to, own.length));
    keepLaid(at, next);
    setLaid(next);
    const wait = next > laid ? (own[next]?.wait_s ?? 0) : 0;
    if (wait >= 5)
      startTimer(
        cool,
        `Bead ${own[next]?.number} waits for the metal: ${plan.warm} or less, or a hand stays on it`,
        wait,
      );
    else dropTimer(cool);
  };
  const { style } = floor.sheet;
  return (
    <Flex direction="column" gap="3">
      <Text fontSize="20px">
        {plan.setting}; {plan.heat}. Preheat: {plan.preheat}. About {Math.round(plan.arc_min)} minutes of arc,{" "}
        {Math.round(plan.whole_min)} with waits, for both rails by turns.
      </Text>
      {plan.too_many && (
        <Bar colour="touch">Too many beads to tell one by one: short ones, spread, hand-warm between.</Bar>
      )}
      {picture && own.length > 0 && <BeadDrawing picture={picture} beads={own} now={now} laid={laid} />}
      {now ? (
        <Bar colour="chalk">
          <b>
            Bead {now.number} of {plan.beads.length}
          </b>
          : seam {now.seam}, <b>{now.side} rail</b>, {showLength(now.length_mm, style)} {now.towards}
          {now.wait_s >= 5 && `; waits about ${clockFace(now.wait_s)} for the metal to be at ${plan.warm} or less`}
        </Bar>
      ) : (
        own.length > 0 && <Bar colour="added">All {own.length} beads are laid.</Bar>
      )}
      {own.length > 0 && step.status === "open" && (
        <Flex gap="2">
          <Big off={laid === 0} onClick={() => go(laid - 1)}>
            One back
          </Big>
          <Big grow kind="main" off={!now || waits} onClick={() => go(laid + 1)}>
            {waits ? "Read the metal first" : "Bead laid"}
          </Big>
        </Flex>
      )}
      <Bends plan={plan} />
    </Flex>
  );
}

/** What its welds pull, to be read before and after. */
function Bends({ plan }: { plan: HeatPlan }) {
  if (plan.bent.length === 0) return null;
  return (
    <Box as="details" fontSize="20px" bg="sheet" p="2" borderWidth="1px" borderColor="rule">
      <summary>What it bends: read it before and after</summary>
      {plan.bent.map((words) => (
        <Text key={words}>{words}</Text>
      ))}
    </Box>
  );
}

function BeadDrawing(props: { picture: FloorPicture; beads: readonly Bead[]; now: Bead | undefined; laid: number }) {
  const { picture, beads, now, laid } = props;
  const points = beads.flatMap((b) => b.path.vertices);
  const [x0, x1] = [Math.min(...points.map((p) => p.x)) - 30, Math.max(...points.map((p) => p.x)) + 30];
  const [y0, y1] = [Math.min(...points.map((p) => p.y)) - 20, Math.max(...points.map((p) => p.y)) + 20];
  const perMm = (WIDE - 2 * MARGIN) / (x1 - x0);
  const high = Math.max(160, (y1 - y0) * perMm + 2 * MARGIN);
  const side = now?.side ?? "left";
  const shown = beads.map((b, k) => ({ b, k })).filter(({ b }) => b.side === side);
  const at = (x: number, y: number) =>
    [WIDE / 2 + (x - (x0 + x1) / 2) * perMm, high / 2 - (y - (y0 + y1) / 2) * perMm] as const;
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDE} ${high}`}
        width="100%"
        role="img"
        aria-label={`Beads of the ${side} rail by number`}
        style={{ background: paint("sheet"), border: `1px solid ${paint("rule")}` }}
      >
        {picture.view.rail.map((o) => (
          <path key={`${o.vertices[0]?.x}`} d={outlinePath(o, at, perMm)} fill={paint("rule")} fillOpacity={0.3} />
        ))}
        {shown.map(({ b, k }) => (
          <path
            key={b.number}
            d={outlinePath(b.path, at, perMm)}
            stroke={paint(b === now ? "removed" : k < laid ? "ink" : "added")}
            strokeWidth={b === now ? 12 : 6}
            strokeDasharray={k < laid || b === now ? undefined : "10 5"}
            fill="none"
          />
        ))}
        {shown
          .filter(({ k }) => k >= laid && k < laid + 6)
          .map(({ b }) => {
            const [x, y] = at(b.x_mm, ((b.path.vertices[0]?.y ?? 0) + (b.path.vertices[1]?.y ?? 0)) / 2);
            return (
              <text
                key={b.number}
                x={x}
                y={y - 10}
                style={{ fontSize: b === now ? 40 : 32, fontWeight: 600 }}
                textAnchor="middle"
              >
                {b.number}
              </text>
            );
          })}
      </svg>
      <figcaption className="floor-caption">
        The {side} rail, front to the left: laid are whole, to come are broken, the next ones have their numbers
      </figcaption>
    </figure>
  );
}

const KEY = "nodulant-beads/";

function laidBefore(at: string): number {
  try {
    return Number(localStorage.getItem(KEY + at)) || 0;
  } catch {
    return 0;
  }
}

function keepLaid(at: string, laid: number): void {
  try {
    localStorage.setItem(KEY + at, String(laid));
  } catch {
    // storage is shut: the count lasts as long as the page
  }
}
