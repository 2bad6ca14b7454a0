import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, got, handOver } from "../api/client";
import type { JobHead } from "../api/types";
import { applyDensity, applyMode, savedDensity, savedMode } from "../app/mode";
import { useMay } from "../app/session";
import { messageOf } from "../cut/useSearch";
import { saveDraft, saveRevision } from "../draft/autosave";
import { useBench } from "../draft/store";
import { pngOf, svgOf } from "../drawing/picture";
import { Act } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { useHelp } from "../help/helpStore";

const ReaderLinks = lazy(() => import("../shop/ReaderLinks"));

/** Files, a new option, the light, and help. */
export function More({ job }: { job: JobHead }) {
  const [open, setOpen] = useState(false);
  const [sharing, setSharing] = useState(false);
  const [mode, setMode] = useState(savedMode());
  const [density, setDensity] = useState(savedDensity());
  const optionId = useBench((s) => s.optionId);
  const may = useMay();
  const help = useHelp((s) => s.put);
  const other = mode === "dye" ? "paper" : "dye";
  const go = useNavigate();
  const compare = async () => {
    if (may.design && !(await saveRevision("left to compare options"))) await saveDraft();
    go(`/jobs/${job.id}/compare`);
  };
  const show = (part: Parameters<typeof help>[0]) => {
    setOpen(false);
    help(part);
  };
  const grow = () => {
    const next = density === "gloves" ? "desk" : "gloves";
    applyDensity(next);
    setDensity(next);
  };
  const turn = () => {
    applyMode(other);
    setMode(other);
  };
  return (
    <Box
      className="more"
      position="relative"
      onKeyDown={(e) => e.key === "Escape" && setOpen(false)}
      onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && setOpen(false)}
    >
      <Act onClick={() => setOpen(!open)}>More</Act>
      {open && (
        <Box
          position="absolute"
          right="0"
          top="40px"
          zIndex="5"
          bg="sheet"
          borderWidth="1px"
          borderColor="chalk"
          p="3"
          w="27rem"
          maxW="95vw"
          role="dialog"
          aria-label="More"
        >
          <Flex gap="2" wrap="wrap" mb="3">
            <Act onClick={() => show({ revisions: true })}>Options and revisions</Act>
            <FileLink href={`/api/options/${optionId}/report.pdf`} name="Dossier, PDF" />
            <FileLink href={`/api/jobs/${job.id}/export`} name="Job file" />
            <FileLink href={`/api/options/${optionId}/checks.csv`} name="Checks, CSV" />
            <FileLink href={`/api/options/${optionId}/readings.csv`} name="Readings, CSV" />
            <SheetPicture kind="svg" optionId={optionId} />
            <SheetPicture kind="png" optionId={optionId} />
            {may.design && <Branch job={job} />}
            {may.owns && (
              <Act pressed={sharing} onClick={() => setSharing(!sharing)}>
                Reader's link
              </Act>
            )}
            <Act onClick={() => void compare()}>Options side by side</Act>
            <Act pressed={density === "gloves"} onClick={grow}>
              Large, for gloves
            </Act>
            <Act onClick={turn}>{mode === "dye" ? "Bright paper" : "Layout dye (dark)"}</Act>
          </Flex>
          {may.owns && sharing && (
            <Suspense>
              <ReaderLinks jobId={job.id} />
            </Suspense>
          )}
          <Flex gap="2" wrap="wrap" borderTopWidth="1px" borderColor="rule" pt="3">
            <Act hint="Ctrl K" onClick={() => show({ finding: true })}>
              Find and do
            </Act>
            <Act onClick={() => show({ look: 0 })}>Look round</Act>
            <Act onClick={() => show({ sheet: "words", word: "" })}>Words</Act>
            <Act onClick={() => show({ sheet: "how" })}>How to</Act>
            <Act onClick={() => show({ sheet: "keys" })}>Keys</Act>
          </Flex>
        </Box>
      )}
    </Box>
  );
}

/** A new option that starts from the design on the bench. */
function Branch({ job }: { job: JobHead }) {
  const queries = useQueryClient();
  const [, setSearch] = useSearchParams();
  const branch = async () => {
    const { optionId, history } = useBench.getState();
    const old = job.options.find((o) => o.id === optionId)?.name ?? "option";
    const body = { name: `${old}, again`.slice(0, 120), design: history.now.design };
    const params = { path: { option_id: optionId } };
    const made = await got(api.POST("/api/options/{option_id}/branch", { params, body }));
    await queries.invalidateQueries({ queryKey: ["job", job.id] });
    setSearch({ option: String(made.id) });
  };
  return <Act onClick={() => void branch()}>New option from this</Act>;
}

/** The sheet as it is seen now, as a file; nothing where no sheet is seen. */
function SheetPicture({ kind, optionId }: { kind: "svg" | "png"; optionId: number }) {
  const [trouble, setTrouble] = useState("");
  const give = async () => {
    const drawn = document.querySelector<SVGSVGElement>('svg[aria-label^="Sheet:"]');
    if (!drawn) return setTrouble("no sheet is on the screen: open a stage that shows it");
    try {
      const blob = kind === "png" ? await pngOf(drawn) : new Blob([svgOf(drawn)], { type: "image/svg+xml" });
      handOver(blob, `sheet-${optionId}.${kind}`);
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <>
      <Act onClick={() => void give()}>Sheet as seen, {kind.toUpperCase()}</Act>
      {trouble && (
        <Text role="alert" color="removed" fontSize="14px">
          {trouble}
        </Text>
      )}
    </>
  );
}
