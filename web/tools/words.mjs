// All texts that a user may see, with their place: of the screens, and of the core that speaks through them.
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";

const root = join(import.meta.dirname, "../..");

const files = (folder, ends) =>
  readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && f.name.endsWith(ends))
    .map((f) => join(f.parentPath, f.name))
    .filter((f) => !/[\\/](obj|bin|node_modules|Migrations)[\\/]/.test(f))
    .sort();

/** Attributes that are told or shown; all others are names of classes, ids and the like. */
const spoken = new Set(["aria-label", "title", "label", "words", "text", "placeholder", "heading", "hint", "alt", "unit", "aria-valuetext"]);
const isText = (t) => /\p{L}{2}/u.test(t) && (/\s/.test(t.trim()) || /^\p{Lu}\p{Ll}/u.test(t.trim()));
/** Classes of a style sheet read like words to a program. */
const isStyle = (t) => t.split(/\s+/).filter((w) => /[-:[\]/0-9]/.test(w) || /^(flex|grid|block|hidden|absolute|relative|fixed|truncate|underline|sticky)$/.test(w)).length * 2 >= t.split(/\s+/).length;

function ofScreen(path) {
  const source = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true, path.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS);
  const found = [];
  const told = (node, text) => {
    const plain = text.replace(/\s+/g, " ").trim();
    if (plain) found.push({ file: relative(root, path), line: source.getLineAndCharacterOfPosition(node.getStart()).line + 1, text: plain });
  };
  const template = (node) =>
    ts.isTemplateExpression(node) ? node.head.text + node.templateSpans.map((s) => `{…}${s.literal.text}`).join("") : node.text;
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isJsxText(node) && /\p{L}/u.test(node.text)) told(node, node.text);
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateExpression(node)) {
      const text = template(node);
      const attribute = ts.isJsxAttribute(node.parent) ? node.parent.name.getText() : null;
      if (attribute ? spoken.has(attribute) && /\p{L}{2}/u.test(text) : isText(text) && !isStyle(text)) told(node, text);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

// Strings of C#, joined where one is built of several.
const literal = /\$?"(?:[^"\\\n]|\\.)*"(?:\s*\+\s*\$?"(?:[^"\\\n]|\\.)*")*/g;

function ofCore(path) {
  const text = readFileSync(path, "utf8").replace(/^\s*\/\/.*$/gm, (l) => " ".repeat(l.length));
  return [...text.matchAll(literal)].flatMap((m) => {
    const said = m[0]
      .replace(/"\s*\+\s*\$?"/g, "")
      .replace(/^\$?"|"$/g, "")
      .replace(/\{[^{}]*(?:\{[^{}]*\}[^{}]*)*\}/g, "{…}");
    if (!isText(said) || !/\s/.test(said.trim()) || /^[\w./:{}…\\-]+$/.test(said)) return [];
    return [{ file: relative(root, path), line: text.slice(0, m.index).split("\n").length, text: said.trim() }];
  });
}

export const texts = () => [
  ...files("web/src", ".tsx").filter((f) => !f.includes(".test.")).flatMap(ofScreen),
  ...files("web/src", ".ts").filter((f) => !f.includes(".test.") && !f.endsWith("schema.d.ts") && !/[\\/]test[\\/]/.test(f)).flatMap(ofScreen),
  ...["Core", "Application", "Server", "Store"].flatMap((p) => files(`src/WarmConduit.${p}`, ".cs")).flatMap(ofCore),
];

if (process.argv[1] === import.meta.filename) {
  let file = "";
  for (const t of texts()) {
    if (t.file !== file) console.log(`\n${(file = t.file)}`);
    console.log(`${String(t.line).padStart(5)}  ${t.text}`);
  }
}
