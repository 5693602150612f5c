import fc from 'fast-check';

/**
 * A property that fails says its seed and path at once. Making the counterexample smaller takes hours where every trial
 * paints a journal: who looks into it runs that seed with `SHRINK=all`.
 */
fc.configureGlobal({ endOnFailure: process.env.SHRINK !== 'all' });
