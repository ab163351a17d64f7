import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import ts from 'typescript';
import { projectFolder } from '../setup/folders.mjs';

/** The programs and packages of which figures are told. */
const folders = [
  'packages/core',
  'packages/demonstration',
  'packages/protocol',
  'apps/server',
  'apps/web',
  'apps/ask',
];

/** What a package is imported as, and the file that it is. */
const entrances = new Map([
  ['@yperkine/core', 'packages/core/src/index.ts'],
  ['@yperkine/core/certificate', 'packages/core/src/questions/certified.ts'],
  ['@yperkine/demonstration', 'packages/demonstration/src/index.ts'],
  ['@yperkine/protocol', 'packages/protocol/src/index.ts'],
]);

/**
 * @typedef {{ path: string, tree: ts.SourceFile, imports: { path: string, isType: boolean }[] }} Source
 *   a file of the product, with the files of the product that it imports
 */

/** @returns {Source[]} every file of the product, tests apart */
export function readSources() {
  const paths = folders.flatMap((folder) =>
    readdirSync(join(projectFolder, folder, 'src'), { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.tsx?$/.test(name) && !name.includes('.test.'))
      .map((name) => join(folder, 'src', name)),
  );
  const known = new Set(paths);
  return paths.sort().map((path) => {
    const text = readFileSync(join(projectFolder, path), 'utf8');
    const tree = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
    return { path, tree, imports: importsOf(tree, path).filter((one) => known.has(one.path)) };
  });
}

/**
 * @param {ts.SourceFile} tree
 * @param {string} path
 * @returns {Source['imports']}
 */
function importsOf(tree, path) {
  /** @type {Source['imports']} */
  const found = [];
  /** @param {ts.Node} node */
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) {
      const from = node.moduleSpecifier;
      if (from && ts.isStringLiteral(from))
        found.push({ path: fileOf(from.text, path), isType: isOfTypes(node) });
    } else if (ts.isCallExpression(node) && node.expression.kind === ts.SyntaxKind.ImportKeyword) {
      const [from] = node.arguments;
      if (from && ts.isStringLiteral(from)) found.push({ path: fileOf(from.text, path), isType: false });
    }
    ts.forEachChild(node, visit);
  };
  visit(tree);
  return found;
}

/** @param {ts.ImportDeclaration | ts.ExportDeclaration} node whether nothing of it is there when the program runs */
function isOfTypes(node) {
  if (ts.isExportDeclaration(node)) return node.isTypeOnly;
  const { importClause } = node;
  if (!importClause) return false;
  if (importClause.isTypeOnly) return true;
  const names = importClause.namedBindings;
  const areTypes = names && ts.isNamedImports(names) && names.elements.every((element) => element.isTypeOnly);
  return !importClause.name && Boolean(areTypes);
}

/**
 * @param {string} specifier
 * @param {string} path of the file that imports
 */
const fileOf = (specifier, path) =>
  specifier.startsWith('.')
    ? relative(projectFolder, resolve(projectFolder, dirname(path), specifier.replace(/\?.*$/, '')))
    : (entrances.get(specifier) ?? specifier);
