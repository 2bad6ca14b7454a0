import { Box, Text } from "@chakra-ui/react";
import { memo, useCallback, useEffect, useMemo, useState } from "react";
import { useCatalogue } from "../api/catalogue";
import type { Check, Problem } from "../api/types";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { PlainChoice } from "../fields/controls";
import { placeInWords } from "../fields/placeInWords";
import { useSweepChecks } from "../sweep/useSweep";
import { goTo } from "./goTo";
import { bySeverity, COUNTED, count, type Group, grouped, says, VERDICT_WORDS } from "./group";
import { RemedyList } from "./RemedyList";
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
  ["build", "Build"],
  ["prove", "Prove"],
] as const;

/** Every check, worst first, one row a cause. */
export function MarginColumn() {
  const own = useShown((s) => s.result?.checks ?? NONE);
  const sweep = useSweepChecks();
  const checks = useMemo(
    () => (sweep.length ? [...own.filter(notSwept), ...sweep].toSorted(bySeverity) : own),
    [own, sweep],
  );
  const stale = useShown((s) => s.stale || s.judgedBefore);
  const problems = useShown((s) => s.problems);
  const before = useShown((s) => s.before);
  const [stage, setStage] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const groups = useMemo(() => grouped(checks).filter((g) => !stage || g.head.stage === stage), [checks, stage]);
  const toggle = useCallback((group: Group) => {
    setOpen((now) => (now === group.key ? null : group.key));
    goTo(group.rows[0]);
  }, []);
  return (
    <section aria-label="Margins" style={{ display: "flex", flexDirection: "column", minHeight: 0, flex: 1 }}>
      <div className="margins-head">
        <div className="margins-title">
          <h2>Margins</h2>
          <p>{COUNTED.map((verdict) => `${count(groups, verdict)} ${VERDICT_WORDS[verdict]}`).join(", ")}</p>
        </div>
        <StageFilter stage={stage} choose={setStage} />
      </div>
      {problems.length > 0 && <Refused problems={problems} />}
      <ul className="margins-list" data-stale={stale}>
        {groups.map((group) => (
          <MarginGroup
            key={group.key}
            group={group}
            old={before[group.head.id]}
            open={open === group.key}
            toggle={toggle}
          />
        ))}
      </ul>
      <WorstSpoken head={groups[0]?.head} />
    </section>
  );
}

/** What cannot be computed, by the name of the thing that it lies in. */
function Refused({ problems }: { problems: readonly Problem[] }) {
  const draft = useBench((s) => s.history.now);
  const { forms } = useCatalogue();
  return (
    <Box role="alert" px="3" py="1" color="removed" fontSize="14px" borderLeftWidth="4px" borderColor="removed">
      {problems.slice(0, 3).map((p) => {
        const where = placeInWords(p.pointer, draft, forms);
        return (
          <Text key={p.pointer + p.message}>
            {where && `${where}: `}
            {p.message}
            {p.expected && `: give ${p.expected}`}
          </Text>
        );
      })}
      <Text color="faint">The figures below are those before this.</Text>
    </Box>
  );
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

type GroupProps = { group: Group; old?: number; open: boolean; toggle: (group: Group) => void };

const MarginGroup = memo(function MarginGroup({ group, old, open, toggle }: GroupProps) {
  const { head, rows } = group;
  const style = useBench((s) => s.style);
  const words = useCatalogue();
  const change = old !== undefined && head.margin !== null ? head.margin - old : 0;
  const sides = rows[0]?.sides ?? "both";
  const tail = [head.state === "as-built" && "as built", (sides === "left" || sides === "right") && sides]
    .filter(Boolean)
    .join(", ");
  return (
    <li className="row">
      <button type="button" className="row-head" aria-expanded={open} onClick={() => toggle(group)}>
        <VerdictMark verdict={head.verdict} />
        <span className="row-words">
          <span className="row-title" style={{ display: "block" }}>
            {head.title}
            {tail && <span className="row-tail"> ({tail})</span>}
          </span>
          <span className="row-value" style={{ display: "block" }}>
            {[head.verdict, says(head, style, words)].filter(Boolean).join(": ")}
            {rows.length > 1 && <span className="row-tail"> and {rows.length - 1} more of one cause</span>}
            {Math.abs(change) > 5e-4 && <b>{change > 0 ? " ▴ better" : " ▾ worse"}</b>}
          </span>
        </span>
        <MarginBar beyond={head.yes_no ? null : (head.beyond ?? null)} />
      </button>
      {open && <Unfolded group={group} />}
    </li>
  );
}, sameGroup);

const MENDABLE: ReadonlySet<Check["verdict"]> = new Set(["fails", "weaker"]);

/** What a group holds: the head's why, then its other rows, each of which opens too. */
function Unfolded({ group }: { group: Group }) {
  const [shown, setShown] = useState<string | null>(null);
  const style = useBench((s) => s.style);
  const words = useCatalogue();
  const rest = group.rows.slice(1);
  return (
    <>
      <Why check={group.head} />
      {MENDABLE.has(group.head.verdict) && group.head.stage === "cut" && group.head.state === "planned" && (
        <Box ps="6" pb="2" fontSize="14px">
          <RemedyList groupKey={group.key} />
        </Box>
      )}
      {rest.length > 0 && (
        <ul aria-label="Of the same cause" className="row-rest">
          {rest.map((row) => {
            const { check } = row;
            const open = shown === check.id;
            const turn = () => {
              setShown(open ? null : check.id);
              goTo(row);
            };
            return (
              <li key={check.id}>
                <button type="button" className="row-head" aria-expanded={open} onClick={turn}>
                  <VerdictMark verdict={check.verdict} size={13} />
                  <span className="row-words">
                    {check.title}
                    {["left", "right"].includes(row.sides) && <span className="row-tail"> ({row.sides})</span>}:{" "}
                    <span className="row-value">{says(check, style, words) || check.verdict}</span>
                  </span>
                </button>
                {open && <Why check={check} />}
              </li>
            );
          })}
        </ul>
      )}
    </>
  );
}

/** A group draws again when what it shows has changed. */
function sameGroup(a: GroupProps, b: GroupProps): boolean {
  const [one, two] = [a.group.head, b.group.head];
  const same =
    one.value === two.value &&
    one.verdict === two.verdict &&
    one.title === two.title &&
    a.group.rows.length === b.group.rows.length &&
    a.group.rows[0]?.sides === b.group.rows[0]?.sides;
  return same && a.old === b.old && a.open === b.open && !b.open;
}

/** Tells the worst margin after a pause, once, politely. */
function WorstSpoken({ head }: { head?: Check }) {
  const [words, setWords] = useState("");
  const text = head ? `${head.title}: ${head.verdict}` : "";
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
