/** Completion of a design's text, by the JSON Schema of designs. */

export interface Schema {
  $ref?: string;
  $defs?: Record<string, Schema>;
  properties?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  type?: string | string[];
  description?: string;
}

interface Found {
  from: number;
  options: { label: string; type: string; info?: string }[];
}

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
    return { from: at - typed.length, options: names.map((label) => ({ label, type: "namespace" })) };
  }
  const path = tableAt(before);
  const tables = path.reduce((known, step) => known.flatMap((each) => stepInto(each, step, schema)), [schema]);
  const value = /^\s*([\w-]+)\s*=\s*("?)([^"\s]*)$/.exec(line);
  if (value) {
    const kinds = tables.flatMap((table) => stepInto(table, value[1]!, schema));
    const words = [...new Set(kinds.flatMap((kind) => valuesOf(kind, schema)))];
    if (words.length === 0) return null;
    const isQuoted = value[2] === '"';
    const from = at - (value[3] ?? "").length;
    return { from, options: words.map((word) => ({ label: isQuoted || word === "true" || word === "false" ? word : `"${word}"`, type: "enum" })) };
  }
  const key = /^\s*([\w-]*)$/.exec(line);
  if (!key || (key[1] === "" && !isAsked)) return null;
  const keys = new Map<string, Schema>();
  for (const table of tables) for (const [name, kind] of Object.entries(keysOf(table, schema))) keys.set(name, kind);
  if (keys.size === 0) return null;
  const options = [...keys].map(([label, kind]) => ({ label, type: "property", ...(kind.description ? { info: kind.description } : {}) }));
  return { from: at - (key[1] ?? "").length, options };
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
  return here.flatMap((each) => [each, ...[...(each.anyOf ?? []), ...(each.oneOf ?? []), ...(each.allOf ?? [])].flatMap((one) => plain(one, root))]);
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

function valuesOf(schema: Schema, root: Schema): string[] {
  return plain(schema, root).flatMap((each) => {
    if (each.type === "boolean") return ["true", "false"];
    return [...(each.enum ?? []), ...(each.const === undefined ? [] : [each.const])].filter((one) => typeof one === "string");
  });
}

function headsOf(schema: Schema, root: Schema): string[] {
  return Object.entries(keysOf(schema, root)).flatMap(([name, kind]) =>
    plain(kind, root).some((each) => each.properties !== undefined || each.items !== undefined || typeof each.additionalProperties === "object") ? [name] : [],
  );
}
