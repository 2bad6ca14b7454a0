import type { ReactNode } from "react";
import { useMay } from "../app/session";
import { type Path, valueAt } from "../draft/document";
import { seenDraft, useBench } from "../draft/store";
import { Act } from "../fields/controls";

type Row = { name?: string };

/** Any number of one piece, each with fields of its own; which is open is told by its name. */
export function Pieces({ path, add, children }: { path: Path; add: () => void; children: (at: Path) => ReactNode }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const rows = useBench((s) => valueAt(seenDraft(s), path) as readonly Row[] | undefined) ?? [];
  return (
    <>
      {rows.map((row, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: pieces are known by their order only
        <details key={k} open={rows.length < 3 || k === rows.length - 1}>
          <summary>{row.name || `${k + 1}`}</summary>
          {children([...path, k])}
          {may.design && (
            <Act onClick={() => act({ kind: "remove", path: [...path, k] })}>Take “{row.name || k + 1}” out</Act>
          )}
        </details>
      ))}
      {may.design && <Act onClick={add}>Add one</Act>}
    </>
  );
}
