import swc from '@swc/jest';

/**
 * Objects of the language that modules look up. In the context in which Jest runs a module each such look-up asks the
 * outside first, which arithmetic notices: a module that holds them itself runs up to ten times as fast.
 */
const held = ['Array', 'BigInt', 'Float64Array', 'Infinity', 'Map', 'Math', 'NaN', 'Number', 'Object', 'Set'];
// On the first line, so that the others keep their numbers.
const prologue = `const { ${held.join(', ')} } = globalThis; `;

/** @param {string} source */
const withHeld = (source) => prologue + source;

/** What @swc/jest does, with the objects of the language held by each module. */
export default {
  /** @param {object} options those of @swc/jest */
  createTransformer(options) {
    const inner = /** @type {Required<import('@jest/transform').SyncTransformer>} */ (
      swc.createTransformer(options)
    );
    return {
      ...inner,
      /** @type {typeof inner.process} */
      process: (source, ...rest) => inner.process(withHeld(source), ...rest),
      /** @type {typeof inner.processAsync} */
      processAsync: (source, ...rest) => inner.processAsync(withHeld(source), ...rest),
      /** @type {typeof inner.getCacheKey} */
      getCacheKey: (source, ...rest) => inner.getCacheKey(withHeld(source), ...rest),
    };
  },
};
