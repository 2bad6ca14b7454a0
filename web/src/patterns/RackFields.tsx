import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useSteelChoices } from "../api/catalogue";
import type { JobHead, Style } from "../api/types";
import { keepShop } from "../bench/keepShop";
import { messageOf } from "../cut/useSearch";
import { useBench } from "../draft/store";
import { Act, Pair, PlainChoice, PlainTick } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { showLength, showThickness } from "../units/show";
import { cornersOf, lengthOf, type MetalRack, type Offcut, offcutText, sheetsOf, sheetText } from "./stockText";

/** Sheets that are sold, what parting takes, and the offcuts in the rack. */
export function RackFields({ job }: { job: JobHead }) {
  const style = useBench((s) => s.style);
  return <Fields key={`${style} ${job.shop_number}`} job={job} rack={job.shop.rack} style={style} />;
}

/** Keep the job's shop with another rack. */
export const keepRack = (job: JobHead, rack: MetalRack) => keepShop(job, { ...job.shop, rack });

function Fields({ job, rack, style }: { job: JobHead; rack: MetalRack; style: Style }) {
  const stands = {
    sheets: rack.sheets.map((sheet) => sheetText(sheet, style)).join("; "),
    kerf: showThickness(rack.kerf_mm, style),
    margin: showLength(rack.margin_mm, style),
    grain: rack.grain,
    together: rack.together ?? false,
  };
  const [typed, setTyped] = useState(stands);
  const [trouble, setTrouble] = useState("");
  const put = (more: Partial<typeof stands>) => setTyped({ ...typed, ...more });
  const changed = (Object.keys(stands) as (keyof typeof stands)[]).some((name) => typed[name] !== stands[name]);
  const told = async (make: () => MetalRack) => {
    try {
      await keepRack(job, make());
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const read = (): MetalRack => ({
    ...rack,
    sheets: sheetsOf(typed.sheets, style, rack.sheets),
    kerf_mm: typed.kerf === stands.kerf ? rack.kerf_mm : lengthOf(typed.kerf, style),
    margin_mm: typed.margin === stands.margin ? rack.margin_mm : lengthOf(typed.margin, style),
    grain: typed.grain,
    together: typed.together,
  });
  return (
    <Box mb="2">
      <PlainWords label="Sheets, length x width at price" value={typed.sheets} take={(sheets) => put({ sheets })} />
      <Pair>
        <PlainWords label="Cut takes" value={typed.kerf} take={(kerf) => put({ kerf })} />
        <PlainWords label="To the sheet's edge" value={typed.margin} take={(margin) => put({ margin })} />
      </Pair>
      <PlainTick label="Every plate's length along the sheet's" value={typed.grain} take={(grain) => put({ grain })} />
      <PlainTick
        label="Each work's plates together on one sheet"
        value={typed.together}
        take={(together) => put({ together })}
      />
      {changed && (
        <Act main onClick={() => void told(read)}>
          Keep these sheets
        </Act>
      )}
      <Offcuts rack={rack} style={style} keep={(offcuts) => void told(() => ({ ...rack, offcuts: offcuts() }))} />
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}

type Given = { rack: MetalRack; style: Style; keep: (offcuts: () => Offcut[]) => void };

/** Offcuts in the rack, and one more by its size or its corners. */
function Offcuts({ rack, style, keep }: Given) {
  const steels = useSteelChoices(true);
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState({ name: "", thick: "", size: "", steel: "mild" });
  const put = (more: Partial<typeof typed>) => setTyped({ ...typed, ...more });
  const one = (): Offcut => ({
    id: unused(rack.offcuts),
    name: typed.name.trim() || "offcut",
    thickness_mm: lengthOf(typed.thick, style),
    steel_id: typed.steel,
    corners: cornersOf(typed.size, style),
  });
  return (
    <>
      {rack.offcuts.map((offcut) => (
        <Flex key={offcut.id} gap="2" align="center" fontSize="14px" borderBottomWidth="1px" borderColor="rule">
          <Text flex="1">
            {offcut.name}, {showThickness(offcut.thickness_mm, style)}, {offcutText(offcut, style)}
          </Text>
          <Act
            hint={`take ${offcut.name} out of the rack`}
            onClick={() => keep(() => rack.offcuts.filter((o) => o.id !== offcut.id))}
          >
            Gone
          </Act>
        </Flex>
      ))}
      {open ? (
        <Box mt="1">
          <Pair>
            <PlainWords label="Offcut" value={typed.name} take={(name) => put({ name })} />
            <PlainWords label="Its thickness" value={typed.thick} take={(thick) => put({ thick })} />
          </Pair>
          <PlainWords
            label="Length x width, or corners: 0, 0; 30, 0; 24, 12"
            value={typed.size}
            take={(size) => put({ size })}
          />
          <PlainChoice label="Its steel" value={typed.steel} choices={steels} choose={(steel) => put({ steel })} />
          <Flex gap="2" mt="1">
            <Act main onClick={() => keep(() => [...rack.offcuts, one()])}>
              Put it in the rack
            </Act>
            <Act onClick={() => setOpen(false)}>Not now</Act>
          </Flex>
        </Box>
      ) : (
        <Box mt="1">
          <Act onClick={() => setOpen(true)}>Add an offcut</Act>
        </Box>
      )}
    </>
  );
}

/** An id that no offcut has. */
export function unused(offcuts: readonly Offcut[]): string {
  const taken = new Set(offcuts.map((o) => o.id));
  let number = taken.size + 1;
  while (taken.has(`offcut-${number}`)) number += 1;
  return `offcut-${number}`;
}
