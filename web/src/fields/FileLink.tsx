import { save } from "../api/client";
import { useMay } from "../app/session";
import { saveRevision } from "../draft/autosave";
import { useBench } from "../draft/store";
import { Act } from "./controls";

/** A file of the option as it stands: a revision is cut first, so that the file names one. A refusal is told here. */
export function FileLink({ href, name }: { href: string; name: string }) {
  const may = useMay();
  const take = async () => {
    const { put } = useBench.getState();
    if (may.design && !(await saveRevision("before a file was taken"))) return;
    try {
      await save(href);
      put({ notice: "" });
    } catch (error) {
      put({ notice: `${name}: ${error instanceof Error ? error.message : "not written"}` });
    }
  };
  return <Act onClick={() => void take()}>{name}</Act>;
}
