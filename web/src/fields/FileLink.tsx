import { useMay } from "../app/session";
import { saveRevision } from "../draft/autosave";
import { Act } from "./controls";

/** A file of the option as it stands: a revision is cut first, so that the file names one. */
export function FileLink({ href, name }: { href: string; name: string }) {
  const may = useMay();
  return (
    <Act
      onClick={async () => {
        if (may.design && !(await saveRevision("before a file was taken"))) return;
        window.location.assign(href);
      }}
    >
      {name}
    </Act>
  );
}
