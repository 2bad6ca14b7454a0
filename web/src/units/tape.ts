import { readTapeAs } from "../api/client";
import { queries } from "../api/queries";
import { useBench } from "../draft/store";

/** Texts of the server follow the tape that is read here: what was fetched in another unit is fetched again. */
export function startTape(): () => void {
  readTapeAs(useBench.getState().style);
  return useBench.subscribe((now, then) => {
    if (now.style === then.style) return;
    readTapeAs(now.style);
    void queries.invalidateQueries();
  });
}
