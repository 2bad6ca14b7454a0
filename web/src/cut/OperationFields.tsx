import { useBoltChoices, useSteelChoices } from "../api/catalogue";
import type { Operation } from "../api/types";
import { useMay } from "../app/session";
import type { Path } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { Act, ChoiceField, Group, Pair, TickField, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { FigureList } from "./FigureList";
import type { FieldSpec, PartSpec } from "./fieldSpecs";
import { startPlace } from "./fresh";
import { KINDS } from "./kinds";
import { PlaceFields } from "./PlaceFields";
import { SideField } from "./SideField";

/** The form of an operation, from its description; the core's own figures of it stand below. */
export function OperationFields({ op, index }: { op: Operation; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const spec = KINDS.find((k) => k.kind === op.kind);
  if (!spec) return null;
  const at = ["design", "operations", index] as const;
  return (
    <>
      <p className="small-words">{spec.says}.</p>
      <Fields op={op} at={at} fields={spec.fields} />
      {op.kind !== "crossmember" && <SideField op={op} index={index} />}
      <FigureList id={op.id} />
      {spec.parts
        ?.filter((part) => part.when?.(op) ?? true)
        .map((part) => (
          <Part key={part.at} op={op} at={at} part={part} />
        ))}
      {may.design && <Act onClick={() => act({ kind: "remove", path: at })}>Take this out of the plan</Act>}
    </>
  );
}

const WIDE = ["place", "words", "tick"];
const isWide = (field: FieldSpec | undefined) => WIDE.includes(field?.is ?? "") || field?.note !== undefined;

/** Wide fields in rows of their own, the others in pairs. */
function Fields({ op, at, fields }: { op: Operation; at: Path; fields: readonly FieldSpec[] }) {
  const shown = fields.filter((f) => f.when?.(op) ?? true);
  const rows: FieldSpec[][] = [];
  for (const field of shown) {
    const last = rows.at(-1);
    if (!isWide(field) && last?.length === 1 && !isWide(last[0])) last.push(field);
    else rows.push([field]);
  }
  return (
    <>
      {rows.map((row) =>
        isWide(row[0]) ? (
          row.map((field) => <Field key={field.at} at={at} field={field} />)
        ) : (
          <Pair key={row[0]?.at}>
            {row.map((field) => (
              <Field key={field.at} at={at} field={field} />
            ))}
          </Pair>
        ),
      )}
    </>
  );
}

/** A field with the note of its default under it. */
function Field({ at, field }: { at: Path; field: FieldSpec }) {
  if (!field.note) return <Plain at={at} field={field} />;
  return (
    <div>
      <Plain at={at} field={field} />
      <p className="small-words row-tail">{field.note}</p>
    </div>
  );
}

function Plain({ at, field }: { at: Path; field: FieldSpec }) {
  const path = [...at, ...field.at.split(".")];
  const { label, optional } = field;
  switch (field.is) {
    case "place":
      return <PlaceFields label={label} path={path} />;
    case "words":
      return <WordsField label={label} path={path} empty={optional} />;
    case "tick":
      return <TickField label={label} path={path} />;
    case "choice":
      return <ChoiceField label={label} path={path} choices={field.choices ?? []} />;
    case "steel":
    case "bolt":
    case "grade":
    case "crossmember":
    case "feature":
      return <Known label={label} path={path} is={field.is} />;
    default:
      return <QuantityField label={label} path={path} kind={field.is} optional={optional} />;
  }
}

/** A choice among what the core or the survey knows. */
function Known({ label, path, is }: { label: string; path: Path; is: NonNullable<FieldSpec["is"]> }) {
  const steels = useSteelChoices(true);
  const { sizes, grades } = useBoltChoices();
  const survey = useBench((s) => shownDraft(s).survey);
  const ties = (survey.crossmembers ?? []).map((c) => [c.id, c.name] as const);
  const features = survey.features.map((f) => [f.id, f.name] as const);
  const lists = { steel: steels, bolt: sizes, grade: grades, crossmember: ties, feature: features };
  const known = lists[is as keyof typeof lists] ?? [];
  const choices = is === "crossmember" || is === "feature" ? [["", "choose"] as const, ...known] : known;
  return <ChoiceField label={label} path={path} choices={choices} />;
}

/** A part that is there or not. */
export function Part({ op, at, part }: { op: Operation; at: Path; part: PartSpec }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const there = (op as Record<string, unknown>)[part.at] != null;
  const turn = () => {
    const draft = useBench.getState().history.now;
    const value = there ? null : (part.fresh ?? startPlace(draft, 0));
    act({ kind: "set", path: [...at, part.at], value });
  };
  const button = may.design && <Act onClick={turn}>{there ? "Leave it out" : "Add it"}</Act>;
  return (
    <Group title={part.title} extra={button}>
      {there && <Fields op={op} at={at} fields={part.fields} />}
    </Group>
  );
}
