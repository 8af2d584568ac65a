// A TOML language server (taplo), as editors run it: reads [{text, line, character}] from standard
// input, writes what it offers at each place, [[{label, documentation, inserts}]].
// Arguments: the folder that the texts are in. Nothing goes to a network.

import { readFile } from "node:fs/promises";
import { fileURLToPath, pathToFileURL } from "node:url";
import path from "node:path";
import lsp from "../web/node_modules/@taplo/lsp/dist/index.js";

const folder = process.argv[2];
const root = pathToFileURL(folder).href;
const waiting = new Map();
let asked = 0;

const environment = {
  now: () => new Date(),
  envVar: () => undefined,
  envVars: () => [],
  stdErrAtty: () => false,
  stdin: async () => new Uint8Array(),
  stdout: async (bytes) => bytes.length,
  stderr: async (bytes) => bytes.length,
  glob: () => [],
  readFile: (file) => readFile(file),
  writeFile: async () => {},
  urlToFilePath: (url) => (url.startsWith("file:") ? fileURLToPath(url) : ""),
  isAbsolute: (file) => path.isAbsolute(file),
  cwd: () => folder,
  findConfigFile: () => undefined,
  // Its list of known schemas is empty here.
  fetch: { fetch: async () => Response.json({ version: 1, schemas: [] }), Headers, Request, Response },
};

const server = await lsp.TaploLsp.initialize(environment, {
  onMessage(message) {
    if (message.method === undefined) waiting.get(message.id)(message.result);
    else if (message.method === "workspace/configuration") answer(message.id, message.params.items.map(() => ({})));
    else if (message.id !== undefined) answer(message.id, null);
  },
});

const answer = (id, result) => server.send({ jsonrpc: "2.0", id, result });
const notify = (method, params) => server.send({ jsonrpc: "2.0", method, params });
const ask = (method, params) =>
  new Promise((done) => {
    const id = ++asked;
    waiting.set(id, done);
    server.send({ jsonrpc: "2.0", id, method, params });
  });

await ask("initialize", {
  processId: null,
  rootUri: root,
  workspaceFolders: [{ uri: root, name: "designs" }],
  capabilities: {
    workspace: { configuration: true, workspaceFolders: true },
    textDocument: { completion: { completionItem: { snippetSupport: true } } },
  },
  initializationOptions: { configurationSection: "evenBetterToml" },
});
notify("initialized", {});

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const found = [];
for (const [number, place] of JSON.parse(Buffer.concat(chunks)).entries()) {
  const uri = `${root}/design-${number}.toml`;
  notify("textDocument/didOpen", { textDocument: { uri, languageId: "toml", version: 1, text: place.text } });
  let offered = [];
  // It reads the schema meanwhile, and offers nothing until it has.
  for (let tries = 0; tries < 100 && offered.length === 0; tries++) {
    await new Promise((done) => setTimeout(done, 50));
    offered = (await ask("textDocument/completion", { textDocument: { uri }, position: { line: place.line, character: place.character } })) ?? [];
  }
  found.push(offered.map((each) => ({ label: each.label, documentation: each.documentation?.value ?? "", inserts: each.insertText ?? each.textEdit?.newText ?? each.label })));
}
process.stdout.write(JSON.stringify(found), () => process.exit(0));
