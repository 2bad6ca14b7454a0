import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import type { TypedBefore as Row } from "../api/types";
import { useMay } from "../app/session";
import { PlainChoice } from "./controls";

/** What the shop typed in its own jobs, to be taken again; nothing where there is none of the kind. */
export function TypedBefore({
  kinds,
  label,
  take,
}: {
  kinds: readonly string[];
  label: string;
  take: (values: Row["values"]) => void;
}) {
  const may = useMay();
  const found = useQuery({ queryKey: ["library"], queryFn: () => got(api.GET("/api/library")) });
  const rows = (found.data ?? []).filter((row) => kinds.includes(row.kind));
  if (!may.design || rows.length === 0) return null;
  const named = rows.map((row, i) => [String(i), `${row.name} (${row.of})`] as const);
  return (
    <PlainChoice
      free
      label={label}
      value=""
      choices={[["", "typed before in this shop"], ...named]}
      choose={(index) => {
        const row = rows[Number(index)];
        if (row) take(row.values);
      }}
    />
  );
}
