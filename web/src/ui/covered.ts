/**
 * Whether something lies over the page: a dialog, a menu, an open choice. Whoever made it hides the page from screen
 * readers, and what they do not see hears no shortcut and takes no scan. A list of matches under its field covers nothing.
 */
export const isPageCovered = (): boolean =>
  (document.getElementById('main')?.closest('[aria-hidden=true], [inert]') ?? null) !== null;
