/**
 * Changes of plain JSON, field by field. Each says what was there before, so that it can be laid over what others have
 * changed meanwhile without taking anything back, and undone.
 */
import { z } from 'zod';

export type Json = unknown;

/** A member by its name, or an item of a list by its `id`. */
export type Key = string | { readonly id: string };

/** A field that is set; missing: not there. */
export interface FieldEdit {
  readonly path: readonly Key[];
  readonly was?: Json;
  readonly is?: Json;
}

/** A stretch of a list that is replaced. */
export interface ListEdit {
  readonly path: readonly Key[];
  readonly at: number;
  readonly out: readonly Json[];
  readonly in: readonly Json[];
}

export type Edit = FieldEdit | ListEdit;

/** A field that somebody else has changed otherwise meanwhile: theirs stays. */
export interface Clash {
  readonly path: readonly Key[];
  readonly theirs?: Json;
  readonly mine?: Json;
}

const key = z.union([z.string().max(200), z.strictObject({ id: z.string().max(200) })]);
const path = z.array(key).min(1).max(12);
const items = z.array(z.json()).max(50_000);
export const editSchema: z.ZodType<Edit, Edit> = z.union([
  z.strictObject({ path, at: z.number().int().min(0), out: items, in: items }),
  z.strictObject({ path, was: z.json().optional(), is: z.json().optional() }),
]);
export const clashSchema: z.ZodType<Clash> = z.object({
  path: z.array(key),
  theirs: z.json().optional(),
  mine: z.json().optional(),
});

type Fields = Readonly<Record<string, Json>>;
interface Item extends Fields {
  readonly id: string;
}

const isList = (value: Json): value is readonly Json[] => Array.isArray(value);
const isFields = (value: Json): value is Fields =>
  typeof value === 'object' && value !== null && !isList(value);
const isItem = (value: Json): value is Item => isFields(value) && typeof value.id === 'string';
const memberOf = (value: Fields, name: string): Json =>
  Object.hasOwn(value, name) ? value[name] : undefined;
const textOf = (value: Json): string =>
  JSON.stringify(value, (_, inner: Json) =>
    isFields(inner) ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1))) : inner,
  ) ?? 'undefined';
/** Whether two values say the same, in whatever order their fields come: PostgreSQL keeps its own. */
export const isSame = (a: Json, b: Json): boolean => a === b || textOf(a) === textOf(b);
const isListEdit = (edit: Edit): edit is ListEdit => 'in' in edit;

/** What turns `before` into `after`. */
export function editsBetween(before: Json, after: Json, path: readonly Key[] = []): Edit[] {
  if (before === after) return [];
  if (isFields(before) && isFields(after)) {
    const names = new Set([...Object.keys(before), ...Object.keys(after)]);
    return [...names].flatMap((name) =>
      editsBetween(memberOf(before, name), memberOf(after, name), [...path, name]),
    );
  }
  if (isList(before) && isList(after)) return listEdits(before, after, path);
  if (isSame(before, after)) return [];
  return [
    { path, ...(before === undefined ? {} : { was: before }), ...(after === undefined ? {} : { is: after }) },
  ];
}

/** Items that differ from one another are told apart by what they say; of others the whole list is set. */
function listEdits(before: readonly Json[], after: readonly Json[], path: readonly Key[]): Edit[] {
  if (!differ(before) || !differ(after))
    return isSame(before, after) ? [] : [{ path, was: before, is: after }];
  const isByItem =
    before.length === after.length &&
    before.every((item, i) => isItem(item) && (after[i] as Item | null)?.id === item.id);
  if (isByItem)
    return before.flatMap((item, i) => editsBetween(item, after[i], [...path, { id: (item as Item).id }]));
  const most = Math.min(before.length, after.length);
  let at = 0;
  while (at < most && isSame(before[at], after[at])) at++;
  let behind = 0;
  while (behind < most - at && isSame(before.at(-1 - behind), after.at(-1 - behind))) behind++;
  const [out, put] = [before.slice(at, before.length - behind), after.slice(at, after.length - behind)];
  return out.length + put.length === 0 ? [] : [{ path, at, out, in: put }];
}

const differ = (list: readonly Json[]): boolean =>
  new Set(list.map((item) => (isItem(item) ? item.id : textOf(item)))).size === list.length;

/** The same change backwards. */
export const undone = (edits: readonly Edit[]): Edit[] =>
  [...edits].reverse().map((edit) => {
    if (isListEdit(edit)) return { ...edit, out: edit.in, in: edit.out };
    const { path, was, is } = edit;
    return { path, ...(is === undefined ? {} : { was: is }), ...(was === undefined ? {} : { is: was }) };
  });

/** Lays changes over a value. What is no longer as a change found it stays, and is told. */
export function applyEdits<T>(
  value: T,
  edits: readonly Edit[],
): { readonly value: T; readonly clashes: readonly Clash[] } {
  const clashes: Clash[] = [];
  const result = edits.reduce<Json>((now, edit) => at(now, edit.path, edit, clashes), value);
  return { value: result as T, clashes };
}

/** The value with the edit made at what is left of its path. */
function at(value: Json, [next, ...rest]: readonly Key[], edit: Edit, clashes: Clash[]): Json {
  if (next === undefined)
    return isListEdit(edit) ? inList(value, edit, clashes) : field(value, edit, clashes);
  const clash = (): Json => {
    clashes.push({ path: edit.path, ...(isListEdit(edit) ? { mine: edit.in } : { mine: edit.is }) });
    return value;
  };
  if (typeof next === 'string') {
    if (!isFields(value)) return clash();
    const made = at(memberOf(value, next), rest, edit, clashes);
    if (made !== undefined) return { ...value, [next]: made };
    const { [next]: _gone, ...others } = value;
    return others;
  }
  if (!isList(value)) return clash();
  const place = value.findIndex((item) => isItem(item) && item.id === next.id);
  if (place < 0) return clash();
  const made = at(value[place], rest, edit, clashes);
  return made === value[place] ? value : value.with(place, made);
}

function field(now: Json, { path, was, is }: FieldEdit, clashes: Clash[]): Json {
  if (isSame(now, was)) return is;
  if (isSame(now, is)) return now;
  // both began something that was not there: both beginnings count
  if (was === undefined && isFields(now) && isFields(is)) {
    const both = applyEdits(now, editsBetween({}, is));
    for (const clash of both.clashes) clashes.push({ ...clash, path: [...path, ...clash.path] });
    return both.value;
  }
  clashes.push({
    path,
    ...(now === undefined ? {} : { theirs: now }),
    ...(is === undefined ? {} : { mine: is }),
  });
  return now;
}

/** What is there already is not put in again. */
function inList(now: Json, edit: ListEdit, clashes: Clash[]): Json {
  const { path, at: place, out } = edit;
  const list = isList(now) ? now : [];
  const outs = new Set(out.map(textOf));
  const isAsFound = isSame(list.slice(place, place + out.length), out);
  if (isAsFound) return spliced(list, place, out.length, fresh(edit.in, without(list, outs)));
  if (edit.in.some((item) => outs.has(textOf(item)))) {
    if (isSame(list.slice(place, place + edit.in.length), edit.in)) return list;
    // put in another order: what is not as it was found has no order to be put in
    clashes.push({ path, theirs: list, mine: edit.in });
    return list;
  }
  const kept = without(list, outs);
  const there = new Set(list.map(textOf));
  for (const item of out) {
    // still there, but changed by somebody else
    const theirs = there.has(textOf(item)) || !isItem(item) ? undefined : itemIn(kept, item.id);
    if (theirs && isItem(item)) clashes.push({ path: [...path, { id: item.id }], theirs });
  }
  return spliced(kept, place, 0, fresh(edit.in, kept));
}

const spliced = (list: readonly Json[], at: number, out: number, put: readonly Json[]): Json[] => [
  ...list.slice(0, at),
  ...put,
  ...list.slice(at + out),
];
const without = (list: readonly Json[], gone: ReadonlySet<string>): Json[] =>
  gone.size === 0 ? [...list] : list.filter((item) => !gone.has(textOf(item)));
const itemIn = (list: readonly Json[], id: string): Item | undefined =>
  list.filter(isItem).find((item) => item.id === id);

/** Items that are not in a list yet, by what they say and by their ids. */
function fresh(items: readonly Json[], list: readonly Json[]): Json[] {
  const known = new Set(list.map(textOf));
  const ids = new Set(list.filter(isItem).map(({ id }) => id));
  return items.filter((item) => !known.has(textOf(item)) && !(isItem(item) && ids.has(item.id)));
}
