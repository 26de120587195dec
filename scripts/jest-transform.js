// Compiles tests by swc. Jest runs them in a sandbox in which every look-up of a global takes hundreds of times longer than elsewhere,
// so that loops over pixels crawl; each module is given its own name for the global that such loops use.
import swc from '@swc/jest';

const inner = swc.createTransformer({
  jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
  module: { type: 'es6' },
});
const LOCAL = 'const Math = globalThis.Math;';
const withLocals = ({ code, ...rest }) => ({ ...rest, code: LOCAL + code });

export default {
  canInstrument: false,
  getCacheKey: (...given) => `${inner.getCacheKey?.(...given) ?? ''} ${LOCAL}`,
  process: (...given) => withLocals(inner.process(...given)),
  processAsync: async (...given) => withLocals(await inner.processAsync(...given)),
};
