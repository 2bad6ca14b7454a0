import { useBoltChoices, useCatalogue, useSteelChoices } from "../api/catalogue";
import type { Form, FormField, FormPart, Operation } from "../api/types";
import { useMay } from "../app/session";
import { type Path, valueAt } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { Act, ChoiceField, Group, Pair, PlainChoice, TickField, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { PipeField, SawField } from "./Bought";
import { FigureList } from "./FigureList";
import { Pieces } from "./Pieces";
import { PlaceFields } from "./PlaceFields";
import { SideField } from "./SideField";
import { Spots } from "./Spots";
import { useFresh } from "./useFresh";

/** The form of an operation, as the core describes it; the core's own figures of it stand below. */
export function OperationFields({ op, form, index }: { op: Operation; form: Form; index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const at = ["design", "operations", index] as const;
  return (
    <>
      <p className="small-words">{form.says}.</p>
      <Fields op={op} at={at} fields={form.fields} />
      {!form.one_piece && <SideField op={op} index={index} />}
      <FigureList id={op.id} />
      {form.parts.map((part) => offered(op, part) && <Part key={part.at} op={op} at={at} part={part} />)}
      <WordsField label="Note" path={["design", "notes", op.id]} empty none="" />
      {may.design && <Act onClick={() => act({ kind: "remove", path: at })}>Take this out of the plan</Act>}
    </>
  );
}

/** The form of an operation's kind. */
export function useForm(op: Operation | undefined): Form | undefined {
  const { forms } = useCatalogue();
  return forms.find((f) => f.kind === op?.kind);
}

/** Whether a condition of the core's is met: a field's path and the values that it asks for. */
function isMet(op: Operation, when: readonly string[]): boolean {
  const [at, ...values] = when;
  return at === undefined || values.includes(String(valueAt(op, at.split("."))));
}

function offered(op: Operation, part: FormPart): boolean {
  return isMet(op, part.when) && (!part.lacking || valueAt(op, [part.lacking]) == null);
}

const choicesOf = (field: FormField) => field.choices.map((c) => [c.value, c.words] as const);
const KNOWN = ["steel", "bolt", "grade", "crossmember", "feature"];
const WIDE = ["place", "words", "tick", "spots", "saw", "pipe", ...KNOWN];
/** Longer words than these are cut off in half a row. */
const HALF_ROW = 14;
const isWide = (field: FormField | undefined) =>
  field !== undefined &&
  (WIDE.includes(field.kind) || field.note !== "" || field.choices.some((c) => c.words.length > HALF_ROW));

/** Wide fields in rows of their own, the others in pairs. */
function Fields({ op, at, fields }: { op: Operation; at: Path; fields: readonly FormField[] }) {
  const rows: FormField[][] = [];
  for (const field of fields.filter((f) => isMet(op, f.when))) {
    const last = rows.at(-1);
    if (!isWide(field) && last?.length === 1 && !isWide(last[0])) last.push(field);
    else rows.push([field]);
  }
  return (
    <>
      {rows.map((row) =>
        isWide(row[0]) ? (
          row.map((field) => <Field key={field.at} op={op} at={at} field={field} />)
        ) : (
          <Pair key={row[0]?.at}>
            {row.map((field) => (
              <Field key={field.at} op={op} at={at} field={field} />
            ))}
          </Pair>
        ),
      )}
    </>
  );
}

/** A field with the note of its default under it. */
function Field({ op, at, field }: { op: Operation; at: Path; field: FormField }) {
  if (!field.note) return <Plain op={op} at={at} field={field} />;
  return (
    <div>
      <Plain op={op} at={at} field={field} />
      <p className="small-words row-tail">{field.note}</p>
    </div>
  );
}

function Plain({ op, at, field }: { op: Operation; at: Path; field: FormField }) {
  const path = [...at, ...field.at.split(".")];
  const { label, optional } = field;
  switch (field.kind) {
    case "place":
      return <PlaceFields label={label} path={path} />;
    case "words":
      return <WordsField label={label} path={path} empty={optional} />;
    case "tick":
      return <TickField label={label} path={path} />;
    case "choice":
      return <ChoiceField label={label} path={path} choices={choicesOf(field)} />;
    case "spots":
      return <Spots label={label} path={path} />;
    case "saw":
      return <SawField label={label} path={path} />;
    case "pipe":
      return <PipeField label={label} path={path} hole={[...at, "diameter_mm"]} />;
    case "variant":
      return <Variant op={op} at={at} field={field} />;
    case "steel":
    case "bolt":
    case "grade":
    case "crossmember":
    case "feature":
      return <Known label={label} path={path} kind={field.kind} />;
    case "length":
    case "thickness":
    case "angle":
    case "force":
    case "number":
      return <QuantityField label={label} path={path} kind={field.kind} optional={optional} />;
  }
}

/** A choice between kinds of one part; the core says what the other kind begins with here. */
function Variant({ op, at, field }: { op: Operation; at: Path; field: FormField }) {
  const { part, trouble } = useFresh();
  return (
    <div>
      <PlainChoice
        label={field.label}
        value={String(valueAt(op, [field.at, "kind"]))}
        choices={choicesOf(field)}
        choose={(choice) => void part(op.id, [...at, field.at], field.at, choice)}
      />
      {trouble && <p role="alert">{trouble}</p>}
    </div>
  );
}

type KnownKind = "steel" | "bolt" | "grade" | "crossmember" | "feature";

/** A choice among what the core or the survey knows. */
function Known({ label, path, kind }: { label: string; path: Path; kind: KnownKind }) {
  const steel = useSteelChoices(true);
  const { sizes, grades } = useBoltChoices();
  const survey = useBench((s) => shownDraft(s).survey);
  const own = (rows: readonly { id: string; name: string }[]) => [
    ["", "choose"] as const,
    ...rows.map((r) => [r.id, r.name] as const),
  ];
  const lists = {
    steel,
    bolt: sizes,
    grade: grades,
    crossmember: own(survey.crossmembers ?? []),
    feature: own(survey.features),
  };
  return <ChoiceField label={label} path={path} choices={lists[kind]} />;
}

/** A part with fields of its own; an optional one is there or not. */
function Part({ op, at, part }: { op: Operation; at: Path; part: FormPart }) {
  const act = useBench((s) => s.act);
  const fresh = useFresh();
  const may = useMay();
  const there = valueAt(op, [part.at]) != null;
  const path = [...at, part.at];
  if (part.many)
    return (
      <Group title={part.title}>
        {fresh.trouble && <p role="alert">{fresh.trouble}</p>}
        <Pieces path={path} add={() => void fresh.piece(op.id, path, part.at)}>
          {(own) => <Fields op={op} at={own} fields={part.fields} />}
        </Pieces>
      </Group>
    );
  const turn = () => (there ? act({ kind: "set", path, value: null }) : void fresh.part(op.id, path, part.at));
  const button = part.optional && may.design && <Act onClick={turn}>{there ? "Leave it out" : "Add it"}</Act>;
  return (
    <Group title={part.title} extra={button}>
      {fresh.trouble && <p role="alert">{fresh.trouble}</p>}
      {there && <Fields op={op} at={at} fields={part.fields} />}
    </Group>
  );
}
