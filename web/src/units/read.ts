/** Reads what a person typed, as the core does; one table of examples tests both. See the core's `units/parse.py`. */

export type ReadKind = "length" | "angle" | "mass" | "force" | "rate" | "pressure" | "torque" | "number";
export type Read = { value: number; unit: string; text: string };
export type Unread = { text: string; message: string; position: number; acceptable: string };

const LBF = 4.4482216152605;
const MM_PER_INCH = 25.4;

const FACTORS: Record<ReadKind, Record<string, number>> = {
  length: { mm: 1, cm: 10, m: 1000, in: MM_PER_INCH, ft: 304.8 },
  angle: { deg: 1 },
  mass: { kg: 1, lb: 0.45359237, t: 1000 },
  force: { N: 1, kN: 1000, kgf: 9.80665, lbf: LBF, lb: LBF },
  rate: { "N/mm": 1, "lb/in": LBF / MM_PER_INCH, "lbf/in": LBF / MM_PER_INCH },
  pressure: { bar: 1, psi: (LBF / MM_PER_INCH ** 2) * 10, kPa: 0.01 },
  torque: { "N m": 1, "lbf ft": LBF * 0.3048 },
  number: { "": 1 },
};
const SPELLINGS: Record<string, string> = {
  '"': "in",
  "'": "ft",
  inch: "in",
  inches: "in",
  feet: "ft",
  foot: "ft",
  lbs: "lb",
  "°": "deg",
  nm: "n m",
  ...Object.fromEntries(
    ["lbft", "lb ft", "lbfft", "ftlb", "ft lb", "ft-lb", "ftlbf", "ft lbf", "ft-lbf"].map((word) => [word, "lbf ft"]),
  ),
};
const EXAMPLES: Record<ReadKind, string> = {
  length: "such as 3 7/16, 3.4375in, 87.3 mm or 1' 4 1/2\"",
  angle: "such as 4.5 or 4.5deg",
  mass: "such as 120 kg or 265 lb",
  force: "such as 12 kN, 1500 N or 900 lbf",
  rate: "such as 32 N/mm or 180 lb/in",
  pressure: "such as 5 bar or 75 psi",
  torque: "such as 80 N m or 60 lbf ft",
  number: "a plain number such as 2.5",
};
const LOOKALIKES: Record<string, string> = {
  "”": '"',
  "″": '"',
  "’": "'",
  "′": "'",
  "−": "-",
  "–": "-",
  "\u00a0": " ",
  "\u2044": "/",
};
const NUMBER =
  /(?<whole>\d+)(?:-|\s+)(?<num>\d+)\s*\/\s*(?<den>\d+)|(?<fnum>\d+)\s*\/\s*(?<fden>\d+)|(?<dec>\d+[.,]?\d*|[.,]\d+)/y;
const UNIT =
  /[nN] ?[mM](?![a-zA-Z/])|[lL][bB][fF]? ?[fF][tT]|[fF][tT][ -]?[lL][bB][fF]?|[a-zA-Z]+(?:\/[a-zA-Z]+)?|["'°]/y;
const THOUSANDS = /^(\d+),(\d{3})$/;
const MOST_LETTERS = 60;

type Term = { value: number; unit: string; start: number; end: number };

class Trouble extends Error {
  constructor(
    message: string,
    readonly position: number,
  ) {
    super(message);
  }
}

/** The quantity that a text means; `unit` is taken where none was typed. What cannot be read comes back with its place. */
export function readQuantity(text: string, kind: ReadKind, unit: string): Read | Unread {
  try {
    if (text.length > MOST_LETTERS) throw new Trouble("that is too long for one quantity", MOST_LETTERS);
    const clean = [...text].map((letter) => LOOKALIKES[letter] ?? letter).join("");
    const first = skip(clean, 0);
    const signed = clean[first] === "-" || clean[first] === "+";
    const terms = termsOf(clean, signed ? skip(clean, first + 1) : first, kind);
    const [total, typed] = totalOf(terms, kind, unit);
    return { value: clean[first] === "-" ? -total : total, unit: typed, text: text.trim() };
  } catch (error) {
    if (!(error instanceof Trouble)) throw error;
    return { text, message: error.message, position: error.position, acceptable: EXAMPLES[kind] };
  }
}

function skip(text: string, at: number): number {
  let end = at;
  while (end < text.length && /\s/.test(text[end] ?? "")) end += 1;
  return end;
}

function matchAt(pattern: RegExp, text: string, at: number): RegExpExecArray | null {
  pattern.lastIndex = at;
  return pattern.exec(text);
}

function termsOf(text: string, start: number, kind: ReadKind): [Term, ...Term[]] {
  const terms: Term[] = [];
  let at = start;
  while (at < text.length) {
    const term = termAt(text, at, kind);
    terms.push(term);
    at = skip(text, term.end);
  }
  const [first, ...rest] = terms;
  if (!first) throw new Trouble("nothing was typed", at);
  return [first, ...rest];
}

function termAt(text: string, at: number, kind: ReadKind): Term {
  const number = matchAt(NUMBER, text, at);
  if (!number) throw new Trouble("a number was expected here", at);
  const value = figureOf(number, at);
  const ended = at + number[0].length;
  const end = skip(text, ended);
  const found = matchAt(UNIT, text, end);
  if (!found) return { value, unit: "", start: at, end: ended };
  const word = found[0].toLowerCase();
  const meant = SPELLINGS[word] ?? word;
  const unit = Object.keys(FACTORS[kind]).find((name) => name && name.toLowerCase() === meant);
  if (!unit) throw new Trouble(`'${found[0]}' is no unit of ${kind}`, end);
  return { value, unit, start: at, end: end + found[0].length };
}

function figureOf(number: RegExpExecArray, at: number): number {
  const { whole, num, den, fnum, fden, dec } = number.groups ?? {};
  if (dec !== undefined) {
    const thousands = THOUSANDS.exec(dec);
    if (thousands) {
      const [, one, other] = thousands;
      throw new Trouble(`a comma before three digits may be either; type ${one}.${other} or ${one}${other}`, at);
    }
    return Number(dec.replace(",", ".").replace(/\.$/, "") || "0");
  }
  const below = Number(den ?? fden);
  if (below === 0) {
    throw new Trouble("a fraction cannot have 0 below the line", at + number[0].length - (den ?? fden ?? "").length);
  }
  return Number(whole ?? 0) + Number(num ?? fnum) / below;
}

function totalOf(terms: [Term, ...Term[]], kind: ReadKind, unit: string): [number, string] {
  const [first, second, third] = terms;
  const factors = FACTORS[kind];
  if (!second) {
    const used = first.unit || unit;
    const factor = factors[used];
    if (factor === undefined) throw new Trouble(`'${used}' is no unit of ${kind}`, first.end);
    return [first.value * factor, used];
  }
  if (first.unit !== "ft" || (second.unit !== "" && second.unit !== "in")) {
    throw new Trouble("one quantity was expected", second.start);
  }
  if (third) throw new Trouble("one quantity was expected", third.start);
  return [first.value * 304.8 + second.value * MM_PER_INCH, "ft"];
}
