import type { ReactNode } from "react";
import { useMay } from "../app/session";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { Act, Group } from "../fields/controls";

type Props = { title: string; at: Path; there: boolean; fresh: unknown; children: ReactNode };

/** A part of the design that is there or not. */
export function Thing({ title, at, there, fresh, children }: Props) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const turn = () => act({ kind: "set", path: at, value: there ? null : fresh });
  return (
    <Group title={title} extra={may.design && <Act onClick={turn}>{there ? "Leave it out" : "Add it"}</Act>}>
      {there && children}
    </Group>
  );
}
