import { Dialog, Portal } from "@chakra-ui/react";
import { Command } from "cmdk";
import { useEffect, useMemo, useRef } from "react";
import { useNavigate } from "react-router";
import { useCatalogue } from "../api/catalogue";
import { TITLES } from "../bench/titles";
import { saveRevision } from "../draft/autosave";
import { STAGES, useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { focusOn } from "../fields/focusOn";
import { goTo } from "../margins/goTo";
import { grouped } from "../margins/group";
import { useHelp } from "./helpStore";
import { useTerms } from "./terms";

type Found = { group: string; name: string; also?: string; act: () => void };

/** Find and do: stages, work in the plan and its fields, checks, words and acts, by typing a part of their name. */
export default function Palette() {
  const { finding, put } = useHelp();
  const rows = useFound();
  const groups = [...new Set(rows.map((r) => r.group))];
  const chosen = useRef<(() => void) | undefined>(undefined);
  const close = () => put({ finding: false });
  // a list that is gone gives the keyboard back to where it was; only then may it be put elsewhere
  useEffect(
    () => () => {
      if (chosen.current) setTimeout(chosen.current, SETTLED_MS);
    },
    [],
  );
  return (
    <Dialog.Root open={finding} onOpenChange={({ open }) => !open && close()} size="md" placement="top">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" color="ink" aria-label="Find and do">
            <Command label="Find and do" className="palette" loop filter={score}>
              <Command.Input autoFocus placeholder="a stage, a field, a part, a check, a word, something to do" />
              <Command.List>
                <Command.Empty>Nothing has that in its name.</Command.Empty>
                {groups.map((group) => (
                  <Command.Group key={group} heading={group}>
                    {rows
                      .filter((r) => r.group === group)
                      .map((r) => (
                        <Command.Item
                          key={`${r.group} ${r.name} ${r.also ?? ""}`}
                          value={`${r.name} ${r.also ?? ""} ${r.group}`}
                          onSelect={() => {
                            chosen.current = r.act;
                            close();
                          }}
                        >
                          {r.name} {r.also && <small>{r.also}</small>}
                        </Command.Item>
                      ))}
                  </Command.Group>
                ))}
              </Command.List>
            </Command>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

const SETTLED_MS = 60;

/** Every word that is typed has to be there; what begins with the text comes first, then what has it as a word. */
function score(value: string, search: string): number {
  const [text, sought] = [value.toLowerCase(), search.toLowerCase().trim()];
  if (!sought.split(/\s+/).every((word) => text.includes(word))) return 0;
  if (text.startsWith(sought)) return 1;
  return text.includes(` ${sought}`) ? 0.8 : 0.5;
}

function useFound(): Found[] {
  const operations = useBench((s) => s.history.now.design.operations);
  const checks = useShown((s) => s.result?.checks ?? NONE);
  const optionId = useBench((s) => s.optionId);
  const jobId = useBench((s) => s.jobId);
  const { forms } = useCatalogue();
  const terms = useTerms();
  const go = useNavigate();
  return useMemo(() => {
    const { put, undo, redo } = useBench.getState();
    const help = useHelp.getState().put;
    const does: [string, () => void][] = [
      ["Save revision", () => void saveRevision("")],
      ["Undo", undo],
      ["Redo", redo],
      ["Dossier, PDF", () => window.open(`/api/options/${optionId}/report.pdf`)],
      ["Job file", () => window.open(`/api/jobs/${jobId}/export`)],
      ["Options and revisions", () => help({ revisions: true })],
      ["Options side by side", () => go(`/jobs/${jobId}/compare`)],
      ["Other rail", () => put({ side: useBench.getState().side === "left" ? "right" : "left" })],
      ["All jobs", () => go("/")],
      ["Help: words", () => help({ sheet: "words", word: "" })],
      ["Help: how to", () => help({ sheet: "how" })],
      ["Help: keys", () => help({ sheet: "keys" })],
      ["Look round in two minutes", () => help({ look: 0 })],
    ];
    const work = operations.flatMap((op, i) => {
      const open = () => put({ stage: "cut", selected: op.id });
      const form = forms.find((f) => f.kind === op.kind);
      const fields = (form?.fields ?? []).map((f) => ({
        group: "Fields",
        name: f.label,
        also: op.name,
        act: () => {
          open();
          focusOn(`/design/operations/${i}/${f.at.replaceAll(".", "/")}`);
        },
      }));
      return [{ group: "Work in the plan", name: op.name, act: open }, ...fields];
    });
    return [
      ...does.map(([name, act]) => ({ group: "Do", name, act })),
      ...STAGES.map((stage) => ({ group: "Stages", name: TITLES[stage], act: () => put({ stage }) })),
      ...grouped(checks).map((g) => ({
        group: "Checks",
        name: g.head.title,
        also: g.head.verdict,
        act: () => {
          const stage = STAGES.find((s) => s === g.head.stage);
          if (stage) put({ stage });
          goTo(g.rows[0]);
        },
      })),
      ...work,
      ...terms.map((t) => ({ group: "Words", name: t.name, act: () => help({ sheet: "words", word: t.name }) })),
    ];
  }, [operations, checks, forms, terms, optionId, jobId, go]);
}
