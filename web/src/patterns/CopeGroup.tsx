import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { api, got } from "../api/client";
import { usePick } from "../draft/store";
import { Group, Pair } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { PlainQuantity } from "../fields/plain";
import { useNest } from "./useNest";
import { usePatterns } from "./usePatterns";

type Sizes = {
  branch_mm: number | null;
  wall_mm: number | null;
  main_mm: number | null;
  angle_deg: number;
  offset_mm: number;
};

/** A tube that is to lie on another: its wrap at 1:1. */
export function CopeGroup() {
  const { optionId, style } = usePick("optionId", "style");
  const { paper, look } = usePatterns();
  const show = useNest((s) => s.show);
  const [sizes, setSizes] = useState<Sizes>({
    branch_mm: null,
    wall_mm: null,
    main_mm: null,
    angle_deg: 90,
    offset_mm: 0,
  });
  const [trouble, setTrouble] = useState("");
  const [ready, setReady] = useState(false);
  const put = (more: Partial<Sizes>) => setSizes({ ...sizes, ...more });
  const { branch_mm, wall_mm, main_mm } = sizes;
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn again for every size and unit system
  useEffect(() => {
    if (branch_mm === null || wall_mm === null || main_mm === null) return;
    let over = false;
    got(api.POST("/api/cope", { body: { ...sizes, branch_mm, wall_mm, main_mm } }))
      .then((wrap) => {
        if (over) return;
        show(null);
        look(wrap);
        setTrouble("");
        setReady(true);
      })
      .catch((error: unknown) => {
        if (over) return;
        setTrouble(error instanceof Error ? error.message : "no wrap");
        setReady(false);
      });
    return () => {
      over = true;
    };
  }, [sizes, style]);
  const query = Object.entries(sizes)
    .map(([name, value]) => `${name}=${value}`)
    .join("&");
  return (
    <Group title="Wrap for a coped tube">
      <Pair>
        <PlainQuantity label="Branch, outside" value={branch_mm} take={(v) => put({ branch_mm: v })} />
        <PlainQuantity label="Its wall" kind="thickness" value={wall_mm} take={(v) => put({ wall_mm: v })} />
      </Pair>
      <Pair>
        <PlainQuantity label="Lies on, outside" value={main_mm} take={(v) => put({ main_mm: v })} />
        <PlainQuantity label="Angle" kind="angle" value={sizes.angle_deg} take={(v) => put({ angle_deg: v })} />
      </Pair>
      <PlainQuantity label="Axes apart" value={sizes.offset_mm} take={(v) => put({ offset_mm: v })} />
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {ready && (
        <Flex gap="2" mt="1" wrap="wrap">
          {(["pdf", "dxf", "svg"] as const).map((kind) => (
            <Box key={kind}>
              <FileLink
                href={`/api/options/${optionId}/cope.${kind}?paper=${paper}&${query}`}
                name={kind === "pdf" ? "Wrap, PDF 1:1" : `Wrap, ${kind.toUpperCase()}`}
              />
            </Box>
          ))}
        </Flex>
      )}
    </Group>
  );
}
