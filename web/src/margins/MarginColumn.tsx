import { Box, Text } from "@chakra-ui/react";
import { memo, useCallback, useEffect, useMemo, useState } from "react";
import type { Check } from "../api/types";
import { useBench } from "../draft/store";
import { lookAt } from "../drawing/view";
import { byVerdict, NONE, useShown } from "../evaluation/useEvaluation";
import { PlainChoice } from "../fields/controls";
import { useSweepChecks } from "../sweep/useSweep";
import { showLength } from "../units/show";
import { grouped, type Row, shown } from "./group";
import { MarginBar, VerdictMark } from "./VerdictMark";
import { Why } from "./Why";

const FILTERS = [
  ["", "all stages"],
  ["survey", "Survey"],
  ["target", "Target"],
  ["cut", "Cut"],
  ["travel", "Travel"],
  ["steer", "Steering"],
  ["sweep", "Clearance"],
  ["prove", "Prove"],
] as const;

/** Every check, worst first, by how far it is from its limit. */
export function MarginColumn() {
  const own = useShown((s) => s.result?.checks ?? NONE);
  const sweep = useSweepChecks();
  const checks = useMemo(
    () => (sweep.length ? [...own.filter(notSwept), ...sweep].toSorted(byVerdict) : own),
    [own, sweep],
  );
  const stale = useShown((s) => s.stale || s.judgedBefore);
  const problems = useShown((s) => s.problems);
  const before = useShown((s) => s.before);
  const [stage, setStage] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const rows = useMemo(() => grouped(checks).filter((r) => !stage || r.check.stage === stage), [checks, stage]);
  const toggle = useCallback((row: Row) => {
    setOpen((now) => (now === row.key ? null : row.key));
    goTo(row);
  }, []);
  const count = (verdict: Check["verdict"]) => rows.filter((r) => r.check.verdict === verdict).length;
  return (
    <section aria-label="Margins" style={{ display: "flex", flexDirection: "column", minHeight: 0, flex: 1 }}>
      <div className="margins-head">
        <div className="margins-title">
          <h2>Margins</h2>
          <p>
            {count("fails")} fail, {count("not computed")} not computed, {count("close")} close, {count("holds")} hold
          </p>
        </div>
        <StageFilter stage={stage} choose={setStage} />
      </div>
      {problems.length > 0 && (
        <Box role="alert" px="3" py="1" color="removed" fontSize="14px" borderLeftWidth="4px" borderColor="removed">
          {problems.slice(0, 3).map((p) => (
            <Text key={p.pointer + p.message}>
              {placeInWords(p.pointer)}
              {p.message}
              {p.expected && `: give ${p.expected}`}
            </Text>
          ))}
          <Text color="faint">The figures below are those before this.</Text>
        </Box>
      )}
      <ul className="margins-list" data-stale={stale}>
        {rows.map((row) => (
          <MarginRow key={row.key} row={row} old={before[row.check.id]} open={open === row.key} toggle={toggle} />
        ))}
      </ul>
      <WorstSpoken row={rows[0]} />
    </section>
  );
}

/** Where a problem lies, from its pointer: the last two names on the way there. */
function placeInWords(pointer: string): string {
  const names = pointer.split("/").filter((name) => name && !/^\d+$/.test(name));
  const last = names.slice(1).slice(-2);
  const words = last.map((name) => name.replace(/_(mm|deg|kg|n|n_per_mm|id)$/, "").replaceAll(/[_-]/g, " "));
  return words.length ? `${words.join(", ")}: ` : "";
}

/** What only a sweep can say is said by it once it is there. */
const notSwept = (c: Check) => c.limit_id !== "link-room" || c.verdict !== "not computed";

const StageFilter = memo(function StageFilter(props: { stage: string; choose: (stage: string) => void }) {
  return (
    <Box w="7.5rem">
      <PlainChoice free bare label="Checks of" value={props.stage} choices={FILTERS} choose={props.choose} />
    </Box>
  );
});

function goTo(row: Row) {
  const { station_mm, pose_mm } = row.check.governs;
  const { put, side } = useBench.getState();
  const own = row.sides === "left" || row.sides === "right" ? row.sides : side;
  put({ side: own });
  if (station_mm != null) {
    put({ stationMm: station_mm });
    lookAt(station_mm);
  }
  if (pose_mm != null) put({ travelMm: pose_mm });
}

type RowProps = { row: Row; old?: number; open: boolean; toggle: (row: Row) => void };

const MarginRow = memo(function MarginRow({ row, old, open, toggle }: RowProps) {
  const { check, sides } = row;
  const style = useBench((s) => s.style);
  const change = old !== undefined && check.margin !== null ? check.margin - old : 0;
  const tail = [check.state === "as-built" && "as built", sides !== "both" && sides].filter(Boolean).join(", ");
  return (
    <li className="row">
      <button type="button" className="row-head" aria-expanded={open} onClick={() => toggle(row)}>
        <VerdictMark verdict={check.verdict} />
        <span className="row-words">
          <span className="row-title" style={{ display: "block" }}>
            {check.title}
            {tail && <span className="row-tail"> ({tail})</span>}
          </span>
          <span className="row-value" style={{ display: "block" }}>
            {check.verdict}
            {check.value !== null && `, ${shown(check.value, check.unit, (mm) => showLength(mm, style))}`}
            {Math.abs(change) > 5e-4 && <b>{change > 0 ? " ▴ better" : " ▾ worse"}</b>}
          </span>
        </span>
        <MarginBar margin={check.margin} />
      </button>
      {open && <Why check={check} />}
    </li>
  );
}, sameRow);

/** A row draws again when what it shows has changed. */
function sameRow(a: RowProps, b: RowProps): boolean {
  const [one, two] = [a.row.check, b.row.check];
  const same =
    one.value === two.value && one.verdict === two.verdict && one.title === two.title && a.row.sides === b.row.sides;
  return same && a.old === b.old && a.open === b.open && !b.open;
}

/** Tells the worst margin after a pause, once, politely. */
function WorstSpoken({ row }: { row?: Row }) {
  const [words, setWords] = useState("");
  const text = row ? `${row.check.title}: ${row.check.verdict}` : "";
  useEffect(() => {
    const timer = setTimeout(() => setWords(text), 1200);
    return () => clearTimeout(timer);
  }, [text]);
  return (
    <Box aria-live="polite" position="absolute" width="1px" height="1px" overflow="hidden" clipPath="inset(50%)">
      {words}
    </Box>
  );
}
