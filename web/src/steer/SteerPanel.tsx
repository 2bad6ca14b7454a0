import { Box, Text } from "@chakra-ui/react";
import type { AxleTravel, Suspension } from "../api/types";
import { useMay } from "../app/session";
import { useBench, usePick } from "../draft/store";
import { Act, Group, Pair } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { pointerOf } from "../fields/trouble";
import { Facts } from "../travel/Facts";
import { PointFields } from "../travel/LinkFields";
import { useAxleFigure, useAxlePart, useIndex } from "../travel/useAxle";
import { useBegun } from "../travel/useBegun";
import { BumpFinder } from "./BumpFinder";
import { GearFields } from "./GearFields";
import { gearsFor } from "./gears";
import { ShaftFields } from "./ShaftFields";
import { WaysDown } from "./WaysDown";

/** From the steering wheel to the road wheels of the front axle. */
export default function SteerPanel() {
  const { index } = useIndex();
  const own = useBench((s) => s.history.now.design.suspensions?.[index]);
  const put = useBench((s) => s.put);
  if (own?.axle !== "front") {
    return (
      <>
        <Text mb="2">Nothing holds the front axle yet. Give its suspension first; the steering then hangs on it.</Text>
        <Act main onClick={() => put({ stage: "travel" })}>
          To the suspension
        </Act>
      </>
    );
  }
  return <Fields own={own} index={index} />;
}

function Fields({ own, index }: { own: Suspension; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const path = ["design", "suspensions", index] as const;
  const steering = own.steering;
  const gears = gearsFor(own.layout);
  const begun = useBegun();
  if (gears.length === 0) {
    return <Text>This layout has no upright that steers. Wishbones, struts and beam axles do.</Text>;
  }
  if (!steering) {
    return (
      <Box data-field={pointerOf([...path, "steering"])} tabIndex={-1}>
        <Text mb="2">
          No steering yet. It begins with a {gears[0]?.[1]} that fits the hubs; every point can then be typed or
          dragged.
        </Text>
        {may.design && (
          <Act main onClick={() => void begun.part([...path, "steering"], "steering")}>
            Give the steering
          </Act>
        )}
      </Box>
    );
  }
  return (
    <>
      <Sense />
      <Group title="What it does">
        <SteerFacts />
      </Group>
      {may.design && <BumpFinder index={index} />}
      {"toe" in own.layout && <WaysDown index={index} />}
      <GearFields
        gear={steering.gear}
        path={[...path, "steering", "gear"]}
        layout={own.layout}
        choose={(kind) => void begun.part([...path, "steering", "gear"], "gear", kind)}
      />
      {"toe" in own.layout && (
        <Group field={pointerOf([...path, "layout", "toe"])} title="Tie rods, right one">
          <PointFields label="Inner joint, at the gear" path={[...path, "layout", "toe", "frame"]} on="frame" />
          <PointFields label="Outer joint, on the arm" path={[...path, "layout", "toe", "axle"]} on="axle" />
        </Group>
      )}
      {steering.king_pins && (
        <Group title="King pins and tie rod">
          <PointFields label="Upper end, right" path={[...path, "steering", "king_pins", "upper"]} on="axle" />
          <PointFields label="Lower end, right" path={[...path, "steering", "king_pins", "lower"]} on="axle" />
          <PointFields label="Tie rod's ball, right" path={[...path, "steering", "king_pins", "tie_rod"]} on="axle" />
        </Group>
      )}
      <ShaftFields steering={steering} path={[...path, "steering"]} />
      <Group title="Wheels as they are set">
        <Pair>
          <QuantityField label="Camber, out +" path={[...path, "camber_deg"]} kind="angle" />
          <QuantityField label="Toe-in, each" path={[...path, "toe_deg"]} kind="angle" />
        </Pair>
      </Group>
      <Text fontSize="14px" my="2">
        Steering is a safety part. Never weld on a cast or forged steering part; welded splices only where local rules
        allow, by a qualified welder. New lock nuts, split pins and single-use washers at final assembly.
      </Text>
      {may.design && (
        <Act onClick={() => act({ kind: "set", path: [...path, "steering"], value: null })}>Take the steering out</Act>
      )}
    </>
  );
}

/** The first thing to know: the wheels turn the way the steering wheel does. */
function Sense() {
  const trouble = useAxleFigure((axle) => axle.steer?.trouble);
  const sense = useAxleFigure((axle) => (axle.steer ? (axle.steer.sense ?? 0) : undefined));
  const { put } = usePick("put");
  if (trouble) return <Text role="alert">It does not steer: {trouble}.</Text>;
  if (sense === undefined) return null;
  return (
    <>
      <Text mb="1">
        {sense === 0
          ? "The wheels do not turn about the middle."
          : sense > 0
            ? "Turned right, the wheels turn right."
            : "Turned right, the wheels turn left: reversed."}
      </Text>
      <Pair>
        <Act onClick={() => put({ steer: -1 })}>Full left</Act>
        <Act onClick={() => put({ steer: 1 })}>Full right</Act>
      </Pair>
    </>
  );
}

function SteerFacts() {
  const facts = useAxlePart("steer_facts");
  const locks = useAxlePart("locks");
  return (
    <>
      {locks?.length === 2 && <LockTable locks={locks} />}
      <Facts facts={facts} />
    </>
  );
}

/** Both full locks side by side. */
function LockTable({ locks }: { locks: AxleTravel["locks"] }) {
  const degrees = (v: number) => `${v.toFixed(1)}°`;
  const percent = (v: number | null | undefined) => (v == null ? "not reached" : `${v.toFixed(0)} %`);
  const rows: (readonly [string, (lock: AxleTravel["locks"][number]) => string])[] = [
    ["Inner wheel", (l) => degrees(l.inner_deg)],
    ["Outer wheel", (l) => degrees(l.outer_deg)],
    ["Circle, kerb to kerb", (l) => (l.circle_m == null ? "not known" : `${l.circle_m.toFixed(2)} m`)],
    ["Ackermann at 20°", (l) => percent(l.ackermann["20"])],
    ["Ackermann at 30°", (l) => percent(l.ackermann["30"])],
  ];
  return (
    <table className="figures" aria-label="Full lock">
      <thead>
        <tr>
          <th scope="col">Full lock</th>
          {locks.map((lock) => (
            <th key={lock.to} scope="col" style={{ textAlign: "end" }}>
              {lock.to}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, read]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            {locks.map((lock) => (
              <td key={lock.to}>{read(lock)}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
