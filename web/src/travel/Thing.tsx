import type { ReactNode } from "react";
import { useMay } from "../app/session";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { pointerOf } from "../fields/trouble";
import { useBegun } from "./useBegun";

type Props = { title: string; at: Path; there: boolean; begin: () => void; trouble?: string; children: ReactNode };

/** A part of the design that is there or not. */
export function Thing({ title, at, there, begin, trouble = "", children }: Props) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const turn = () => (there ? act({ kind: "set", path: at, value: null }) : begin());
  return (
    <Group
      field={pointerOf(at)}
      title={title}
      extra={may.design && <Act onClick={turn}>{there ? "Leave it out" : "Add it"}</Act>}
    >
      {trouble && <p role="alert">{trouble}</p>}
      {there && children}
    </Group>
  );
}

type Part = Omit<Props, "begin" | "trouble"> & { part: string };

/** A part of a suspension that is there or not; the core says what it begins with. */
export function BegunThing({ part, ...rest }: Part) {
  const begun = useBegun();
  return <Thing {...rest} begin={() => void begun.part(rest.at, part)} trouble={begun.trouble} />;
}
