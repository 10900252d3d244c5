import fc from 'fast-check';

// The sum at the end of a run prints messages and no causes: a property that failed says there what it failed by.
fc.configureGlobal({ includeErrorInReport: true });
