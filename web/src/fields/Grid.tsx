import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { useMay } from "../app/session";
import { Act } from "./controls";

type GridProps = { label: string; heads: readonly string[]; widths: string; children: ReactNode };

/** A table of fields: column heads above, one row of fields each. */
export function Grid({ label, heads, widths, children }: GridProps) {
  return (
    <Box role="group" aria-label={label} minW={{ base: "0", md: "fit-content" }}>
      <Box display={{ base: "none", md: "grid" }} gridTemplateColumns={widths} gap="2" fontSize="13px" color="faint">
        {heads.map((head) => (
          <span key={head}>{head}</span>
        ))}
      </Box>
      {children}
    </Box>
  );
}

/** One row of a grid: labels of its fields are for screen readers only; on a phone a block of labelled pairs. */
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
      gridTemplateColumns={{ base: "minmax(0, 1fr) minmax(0, 1fr)", md: widths }}
      gap="2"
      mb="1"
      pb={{ base: "3", md: "0" }}
      borderBottomWidth={{ base: "1px", md: "0" }}
      borderColor="rule"
      alignItems="start"
      css={{
        "@media (min-width: 48em)": {
          "& label > span:first-of-type": {
            position: "absolute",
            width: 1,
            height: 1,
            overflow: "hidden",
            clipPath: "inset(50%)",
          },
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
