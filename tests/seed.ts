/**
 * Property tests draw what they draw from one seed, so that a run can be had again: `SEED=7 npm test` draws other examples, and
 * a test that fails prints the seed it had.
 */
import fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20_261_126) });
