import { Box, Flex, Progress, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Design, Patch, Remedy } from "../api/types";
import { useMay } from "../app/session";
import { useSearch } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { showAmount, tell } from "../units/tell";

/** What may be done about a group: changes that the core has tried, each taken over with one press. */
export function RemedyList({ groupKey }: { groupKey: string }) {
  const { jobId, style } = usePick("jobId", "style");
  const may = useMay();
  const search = useSearch("/api/remedies");
  const [old, setOld] = useState(false);
  const found = search.answer?.remedies;
  if (!may.design) return null;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    setOld(false);
    void search.find({ job_id: jobId, design, survey, key: groupKey }, design);
  };
  const use = (remedy: Remedy) => {
    if (!layOn(remedy.patch, search.asked as Design)) return setOld(true);
    search.forget();
  };
  return (
    <Box mt="1">
      {search.progress ? (
        <Flex gap="2" align="center">
          <Progress.Root flex="1" value={search.progress.done} max={search.progress.total} aria-label="Changes tried">
            <Progress.Track bg="sheet">
              <Progress.Range bg="chalk" />
            </Progress.Track>
          </Progress.Root>
          <Text fontSize="13px" color="faint">
            {search.told || `${search.progress.done} tried`}
          </Text>
          <Act onClick={search.cancel}>Cancel</Act>
        </Flex>
      ) : (
        !found && (
          <Act main onClick={find}>
            What mends it?
          </Act>
        )
      )}
      <Text role="alert" color="removed">
        {search.trouble}
        {old && "The design has changed since: ask again."}
      </Text>
      {found && (
        <Box role="status" aria-label="What mends it">
          {found.reason && <Text>{tell(found.reason, style)}</Text>}
          {found.offered.map((remedy) => (
            <Offer key={tell(remedy.words, style)} remedy={remedy} use={() => use(remedy)} />
          ))}
        </Box>
      )}
    </Box>
  );
}

function Offer({ remedy, use }: { remedy: Remedy; use: () => void }) {
  const style = useBench((s) => s.style);
  const costs = [
    Math.abs(remedy.mass_kg) >= 0.005 &&
      `${remedy.mass_kg > 0 ? "+" : ""}${showAmount({ value: remedy.mass_kg, kind: "mass" }, style)}`,
    Math.abs(remedy.minutes) >= 1 && `${remedy.minutes > 0 ? "+" : ""}${remedy.minutes.toFixed(0)} min`,
  ].filter(Boolean);
  return (
    <Box borderTopWidth="1px" borderColor="rule" py="1">
      <Text fontWeight="600">{tell(remedy.words, style)}</Text>
      <Text>
        Then {remedy.verdict}
        {remedy.says && `: ${tell(remedy.says, style)}`}. {costs.length > 0 ? costs.join(", ") : "No more metal"}.
      </Text>
      {remedy.changes.map((change) => (
        <Text key={change.title} color="faint">
          {change.title}: {change.before}, then {change.after}.
        </Text>
      ))}
      <Act main={remedy.mends} onClick={use}>
        {remedy.mends ? "Do this" : "Come this far"}
      </Act>
    </Box>
  );
}

/** Lay a patch on the draft as it is now; refused where what it replaces is not what was asked about. */
function layOn(patch: Patch, asked: Design): boolean {
  const { history, act } = useBench.getState();
  const { design } = history.now;
  const same = (id: string) => {
    const [then, now] = [asked, design].map((d) => JSON.stringify(d.operations?.find((op) => op.id === id)));
    return then === now;
  };
  if (!(patch.changed ?? []).every((op) => same(op.id))) return false;
  if ((patch.seats ?? []).length > 0 && JSON.stringify(asked.seats) !== JSON.stringify(design.seats)) return false;
  const changed = new Map((patch.changed ?? []).map((op) => [op.id, op]));
  const operations = [...design.operations.map((op) => changed.get(op.id) ?? op), ...(patch.added ?? [])];
  const crossmembers = [...(design.crossmembers ?? []), ...(patch.crossmembers ?? [])];
  const seats = patch.seats?.length ? patch.seats : design.seats;
  act({ kind: "set", path: ["design"], value: { ...design, operations, crossmembers, seats } });
  return true;
}
