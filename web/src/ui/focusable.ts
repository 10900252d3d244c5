/** Everything that Tab stops at. */
export const FOCUSABLE =
  ':is(a[href], button:not(:disabled), input:not(:disabled, [type=hidden]), textarea:not(:disabled), [tabindex]:not([tabindex="-1"]))';
