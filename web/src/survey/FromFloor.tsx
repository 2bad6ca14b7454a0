import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { shownDraft, useBench } from "../draft/store";
import { Act, Pair } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";

/** A hub that stands above the datum plane by about its own radius was most likely told from the floor. */
const LIKE_A_RADIUS = 0.2;
const ENDS = ["left", "right"] as const;

/** Hub heights as read from the floor: the datum plane's own height above it makes them heights from the datum. */
export function FromFloor({ axle }: { axle: "front" | "rear" }) {
  const own = useBench((s) => shownDraft(s).survey[axle]);
  const act = useBench((s) => s.act);
  const [open, setOpen] = useState(false);
  const [planeMm, setPlaneMm] = useState<number | null>(null);
  const radius = own.loaded_radius_mm ?? null;
  const told = [own.hub_z_left_mm, own.hub_z_right_mm].filter((z): z is number => z != null);
  const suspect = radius !== null && told.some((z) => z > 0 && Math.abs(z - radius) < LIKE_A_RADIUS * radius);
  const put = (end: (typeof ENDS)[number], mm: number) =>
    act({
      kind: "set",
      path: ["survey", axle, `hub_z_${end}_mm`],
      value: Math.round((mm - (planeMm ?? 0)) * 100) / 100,
    });
  /** What stands there was read from the floor: it is told from the datum plane now. */
  const takeAsFloor = (plane: number) => {
    setPlaneMm(plane);
    if (!suspect) return;
    for (const end of ENDS) {
      const z = own[`hub_z_${end}_mm`];
      if (z != null)
        act({ kind: "set", path: ["survey", axle, `hub_z_${end}_mm`], value: Math.round((z - plane) * 100) / 100 });
    }
  };
  return (
    <Box mb="2">
      {suspect && !open && (
        <Text role="alert" fontSize="14px" color="removed">
          That reads like a height from the floor; here it is told from the datum plane.
        </Text>
      )}
      <Act pressed={open} onClick={() => setOpen(!open)}>
        Read from the floor
      </Act>
      {open && (
        <Box mt="1" p="2" bg="sheet">
          <PlainQuantity label="Datum plane above the floor" value={planeMm} take={takeAsFloor} />
          {planeMm !== null && (
            <Pair>
              {ENDS.map((end) => (
                <PlainQuantity
                  key={end}
                  label={`Hub above the floor, ${end}`}
                  value={own[`hub_z_${end}_mm`] == null ? null : (own[`hub_z_${end}_mm`] ?? 0) + planeMm}
                  take={(mm) => put(end, mm)}
                />
              ))}
            </Pair>
          )}
        </Box>
      )}
    </Box>
  );
}
