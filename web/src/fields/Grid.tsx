import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { useMay } from "../app/session";
import { Act } from "./controls";

type GridProps = { label: string; heads: readonly string[]; widths: string; children: ReactNode };

/** A table of fields: column heads above, one row of fields each. */
export function Grid({ label, heads, widths, children }: GridProps) {
  return (
    <Box role="group" aria-label={label} minW="fit-content">
      <Box display="grid" gridTemplateColumns={widths} gap="2" fontSize="13px" color="faint">
        {heads.map((head) => (
          <span key={head}>{head}</span>
        ))}
      </Box>
      {children}
    </Box>
  );
}

/** One row of a grid; labels of its fields are for screen readers only. */
export function GridRow({
  widths,
  children,
  remove,
  off,
}: {
  widths: string;
  children: ReactNode;
  remove: () => void;
  off?: boolean;
}) {
  const may = useMay();
  return (
    <Box
      display="grid"
      gridTemplateColumns={widths}
      gap="2"
      mb="1"
      alignItems="start"
      css={{
        "& label > span:first-of-type": {
          position: "absolute",
          width: 1,
          height: 1,
          overflow: "hidden",
          clipPath: "inset(50%)",
        },
      }}
    >
      {children}
      {may.design && (
        <Act off={off} onClick={remove} hint="Take this row out">
          ×
        </Act>
      )}
    </Box>
  );
}
