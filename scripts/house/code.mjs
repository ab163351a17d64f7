import ts from 'typescript';

/** @typedef {import('./sources.mjs').Source} Source */

/**
 * @param {readonly Source[]} sources
 * @returns {{ place: string, lines: number, parameters: number, isLogic: boolean }[]} every function
 */
export function functionsOf(sources) {
  return sources.flatMap(({ path, tree }) => {
    /** @type {ReturnType<typeof functionsOf>} */
    const found = [];
    /** @param {number} at */
    const line = (at) => tree.getLineAndCharacterOfPosition(at).line + 1;
    /** @param {ts.Node} node */
    const visit = (node) => {
      if (ts.isFunctionLike(node) && 'body' in node && node.body) {
        const first = line(node.getStart(tree));
        found.push({
          place: `${path}:${first}`,
          lines: line(node.end) - first + 1,
          parameters: node.parameters.length,
          isLogic: path.endsWith('.ts'),
        });
      }
      ts.forEachChild(node, visit);
    };
    visit(tree);
    return found;
  });
}

/**
 * Places that ask for one kind of entry or mark, outside the two folders of that kind.
 * @param {readonly Source[]} sources
 * @returns {string[]}
 */
export function askedKinds(sources) {
  const kinds = kindsOf(sources);
  return sources
    .filter(({ path }) => !path.startsWith('packages/core'))
    .flatMap(({ path, tree }) => {
      /** @type {string[]} */
      const found = [];
      /** @param {ts.Node} node */
      const visit = (node) => {
        const kind = comparedKind(node);
        if (kind !== null && kinds.has(kind) && !path.split('/').includes(kind))
          found.push(`${path}:${tree.getLineAndCharacterOfPosition(node.getStart(tree)).line + 1} ${kind}`);
        ts.forEachChild(node, visit);
      };
      visit(tree);
      return found;
    });
}

/** @param {ts.Node} node what is told by `….kind === '…'`; null for anything else */
function comparedKind(node) {
  if (!ts.isBinaryExpression(node)) return null;
  const { operatorToken, left, right } = node;
  const isCompared =
    operatorToken.kind === ts.SyntaxKind.EqualsEqualsEqualsToken ||
    operatorToken.kind === ts.SyntaxKind.ExclamationEqualsEqualsToken;
  const isKind =
    (ts.isPropertyAccessExpression(left) && left.name.text === 'kind') ||
    (ts.isIdentifier(left) && left.text === 'kind');
  return isCompared && isKind && ts.isStringLiteral(right) ? right.text : null;
}

/**
 * The kinds of entries, by their folders, and of marks, by their shapes.
 * @param {readonly Source[]} sources
 */
function kindsOf(sources) {
  const ofEntries = sources.flatMap(({ path }) => {
    const [, kind] = /^packages\/demonstration\/src\/entries\/(?:\w+\/)*(\w+)\/\w+\.ts$/.exec(path) ?? [];
    return kind ?? [];
  });
  const marks = sources.find(({ path }) => path === 'packages/demonstration/src/marks/mark.ts');
  const ofMarks = [...(marks?.tree.text.matchAll(/readonly kind: '(\w+)'/g) ?? [])].flatMap(
    ([, kind]) => kind ?? [],
  );
  return new Set([...ofEntries, ...ofMarks]);
}
