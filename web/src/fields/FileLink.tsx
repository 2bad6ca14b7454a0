import { saveDraft } from "../draft/autosave";
import { useBench } from "../draft/store";
import { Act } from "./controls";

/** A file of the option as it stands; unsaved work goes along. */
export function FileLink({ href, name }: { href: string; name: string }) {
  return (
    <Act
      onClick={async () => {
        if (useBench.getState().save === "unsaved") await saveDraft();
        window.location.assign(href);
      }}
    >
      {name}
    </Act>
  );
}
