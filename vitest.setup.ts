import fc from 'fast-check';

// The sum at the end of a run prints messages and no causes: a property that failed says there what it failed by.
fc.configureGlobal({ includeErrorInReport: true });

// What is awaited on a page comes when the machine gets to it.
if (typeof document !== 'undefined') {
  const { configure } = await import('@testing-library/dom');
  configure({ asyncUtilTimeout: 60_000 });
}
