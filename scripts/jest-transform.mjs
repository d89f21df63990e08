import { createTransformer } from '@swc/jest';

/**
 * Jest looks globals up in a sandbox, which makes each Math.exp of a hot loop many times slower than in the product. Bound once
 * in front of every module they are as fast as there; on the same line, so that lines in messages stay true.
 */
const BOUND =
  'const { Math, Number, Object, Array, Map, Set, Float64Array, Int32Array, Uint8Array, Infinity, NaN } = globalThis; ';

const transformer = createTransformer({
  jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
  module: { type: 'es6' },
});

/** @public named by jest.config.js */
export default {
  ...transformer,
  getCacheKey: (source, ...rest) => transformer.getCacheKey(BOUND + source, ...rest),
  process: (source, ...rest) => transformer.process(BOUND + source, ...rest),
  processAsync: (source, ...rest) => transformer.processAsync(BOUND + source, ...rest),
};
