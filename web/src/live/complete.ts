/** Completion of a design's text, by the JSON Schema of designs. */

export interface Schema {
  $ref?: string;
  $defs?: Record<string, Schema>;
  properties?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
  items?: Schema;
  anyOf?: (Schema | boolean)[];
  oneOf?: (Schema | boolean)[];
  enum?: unknown[];
  "x-taplo"?: { docs?: { enumValues?: string[] } };
  const?: unknown;
  if?: Schema;
  then?: Schema;
  else?: Schema;
  propertyNames?: Schema;
  type?: string | string[];
  description?: string;
}

interface Option {
  label: string;
  type: string;
  info?: string;
}

interface Found {
  from: number;
  options: Option[];
}

const option = (label: string, type: string, info = ""): Option => ({ label, type, ...(info ? { info } : {}) });

/** What could stand at a place of a text: keys of its table, or values of its key. */
export function completions(text: string, at: number, schema: Schema | undefined, isAsked: boolean): Found | null {
  if (!schema) return null;
  const before = text.slice(0, at);
  const line = before.slice(before.lastIndexOf("\n") + 1);
  if (line.trimStart().startsWith("#")) return null;
  const head = /^\s*\[\[?([^\]]*)$/.exec(line);
  if (head) {
    const typed = head[1] ?? "";
    const names = headsOf(schema, schema);
    return { from: at - typed.length, options: names.map((label) => option(label, "namespace")) };
  }
  const path = tableAt(before);
  const tables = path.reduce((known, step) => known.flatMap((each) => stepInto(each, step, schema)), [schema]);
  const value = /^\s*([\w-]+)\s*=\s*("?)([^"\s]*)$/.exec(line);
  if (value) {
    const kind = keysThere(tables, valuesAround(text, at), schema).get(value[1]!);
    const kinds = kind ? [kind] : tables.flatMap((table) => stepInto(table, value[1]!, schema));
    const words = new Map(kinds.flatMap((kind) => valuesOf(kind, schema)));
    if (words.size === 0) return null;
    const isQuoted = value[2] === '"';
    const from = at - (value[3] ?? "").length;
    const label = (word: string): string => (isQuoted || word === "true" || word === "false" ? word : `"${word}"`);
    return { from, options: [...words].map(([word, info]) => option(label(word), "enum", info)) };
  }
  const key = /^\s*([\w-]*)$/.exec(line);
  if (!key || (key[1] === "" && !isAsked)) return null;
  const keys = keysThere(tables, valuesAround(text, at), schema);
  if (keys.size === 0) return null;
  const options = [...keys].map(([label, kind]) => option(label, "property", meaning(kind.description)));
  return { from: at - (key[1] ?? "").length, options };
}

/** The keys of some tables, as what stands in the table says: an effect has its own parameters. */
function keysThere(tables: Schema[], values: Map<string, string>, root: Schema): Map<string, Schema> {
  const keys = new Map<string, Schema>();
  for (const table of tables) for (const [name, kind] of Object.entries(keysOf(table, root))) keys.set(name, kind);
  const all = tables.flatMap((table) => plain(table, root)).flatMap((each) => [each, ...(each.items ? plain(each.items, root) : [])]);
  for (const { then } of all.flatMap(casesOf).filter((each) => each.if && holds(each.if, values))) {
    for (const [name, kind] of Object.entries(then?.properties ?? {})) keys.set(name, kind);
    const allowed = then?.propertyNames?.enum;
    if (allowed) for (const name of [...keys.keys()]) if (!allowed.includes(name)) keys.delete(name);
  }
  return keys;
}

/** A chain of conditions, each with what follows from it. */
function casesOf(schema: Schema): Schema[] {
  return schema.if ? [schema, ...(schema.else ? casesOf(schema.else) : [])] : [];
}

function holds(condition: Schema, values: Map<string, string>): boolean {
  return Object.entries(condition.properties ?? {}).every(([name, kind]) => values.get(name) === kind.const);
}

/** The texts of the table that a place is in, by their keys. */
function valuesAround(text: string, at: number): Map<string, string> {
  const start = text.lastIndexOf("\n[", at) + 1;
  const end = text.indexOf("\n[", at);
  const table = text.slice(start, end < 0 ? undefined : end);
  return new Map([...table.matchAll(/^[ \t]*([\w-]+)[ \t]*=[ \t]*"([^"\n]*)"/gm)].map((found) => [found[1]!, found[2]!]));
}

/** The table that a place of a text is in, by the last head before it. */
export function tableAt(before: string): string[] {
  const heads = [...before.matchAll(/^[ \t]*\[\[?([^\]\n]+)\]\]?/gm)];
  const last = heads.at(-1)?.[1];
  return last ? last.split(".").map((step) => step.trim().replace(/^["']|["']$/g, "")) : [];
}

function plain(schema: Schema, root: Schema): Schema[] {
  const known = schema.$ref ? root.$defs?.[schema.$ref.split("/").at(-1)!] : undefined;
  const here = known ? plain(known, root) : [schema];
  return here.flatMap((each) => [each, ...[...(each.anyOf ?? []), ...(each.oneOf ?? [])].flatMap((one) => (typeof one === "boolean" ? [] : plain(one, root)))]);
}

function keysOf(schema: Schema, root: Schema): Record<string, Schema> {
  const found: Record<string, Schema> = {};
  for (const each of plain(schema, root)) {
    Object.assign(found, each.properties);
    if (each.items) Object.assign(found, keysOf(each.items, root));
  }
  return found;
}

function stepInto(schema: Schema, step: string, root: Schema): Schema[] {
  const own = keysOf(schema, root)[step];
  if (own) return [own];
  return plain(schema, root).flatMap((each) => (typeof each.additionalProperties === "object" ? [each.additionalProperties] : []));
}

/** A description without its list of words: they are offered as values, each with its text. */
const meaning = (description = ""): string => description.split("\n\n- ")[0]!;

/** The words that a key may have, each with its text. */
function valuesOf(schema: Schema, root: Schema): [string, string][] {
  return plain(schema, root).flatMap((each): [string, string][] => {
    const texts = each["x-taplo"]?.docs?.enumValues ?? [];
    const words = [...(each.enum ?? []), each.const].filter((one) => typeof one === "string");
    const truths = [each.type].flat().includes("boolean") ? ["true", "false"] : [];
    return [...words, ...truths].map((word, i) => [word, texts[i] ?? ""]);
  });
}

function headsOf(schema: Schema, root: Schema): string[] {
  return Object.entries(keysOf(schema, root)).flatMap(([name, kind]) =>
    plain(kind, root).some((each) => each.properties !== undefined || each.items !== undefined || typeof each.additionalProperties === "object") ? [name] : [],
  );
}
