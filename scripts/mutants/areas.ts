/** A part of the code that mutants are let loose on, and the tests that should notice them. */
export interface Area {
  readonly name: string;
  /** Folder of the sources, from the project's root; its first folder below is the feature in the table. */
  readonly sources: string;
  /** Whether a source of the folder belongs to it. */
  readonly takes: (path: string) => boolean;
  /** Folders of the tests, from the project's root. */
  readonly tests: readonly string[];
  /** Whether its test files share what they import, as they do in `vitest.config.ts`. */
  readonly together: boolean;
  /** Kinds of change that are not made. */
  readonly leaves: readonly string[];
  /** How many are tried, chosen by a seed. */
  readonly sample: number;
  /** What a score must reach, in percent of those that are not equivalent. */
  readonly least: number;
}

/** Small worlds are written for tests. */
const isSource = (path: string) =>
  /\.tsx?$/.test(path) && !/(\.test|-world)\.tsx?$/.test(path) && !path.endsWith('/index.ts');

// Emptied texts are left out: emptied SQL dies by itself and says nothing of the tests, and words have their own rules.
const leaves = ['StringLiteral'];

export const areas: readonly Area[] = [
  {
    name: 'core',
    sources: 'core/src',
    takes: isSource,
    // What is scarce and how it is shared is tested where the browser's workers ask for it.
    tests: ['core', 'contract', 'web/src/workers'],
    together: false,
    leaves,
    sample: 1000,
    least: 92,
  },
  {
    name: 'server',
    sources: 'server/src',
    takes: isServed,
    tests: ['server/test'],
    together: true,
    leaves,
    sample: 600,
    least: 85,
  },
  {
    name: 'web',
    sources: 'web/src',
    takes: isLogic,
    tests: ['web/src'],
    together: false,
    leaves,
    sample: 600,
    least: 85,
  },
];

/** What runs before a server listens (its program, its settings) is seen by what is started, not by what is asked. */
function isServed(path: string): boolean {
  return isSource(path) && path !== 'server/src/main.ts';
}

/** What decides or computes in the browser: no components, and no hooks of focus, sizes and looks, which need a page. */
function isLogic(path: string): boolean {
  return isSource(path) && path.endsWith('.ts') && !drawn.some((end) => path.endsWith(end));
}

/** Seen by the browser tests only, because there is nothing to decide in them without a page. */
const drawn = [
  '/main.ts',
  '/nonce.ts',
  '/zod.ts',
  '.worker.ts',
  'api/fetched.ts',
  'api/signedOut.ts',
  'api/usePictureUpload.ts',
  'builds/adding.ts',
  'orders/Fold.ts',
  'picking/feedback.ts',
  'picking/offline.ts',
  'picking/phoneLook.ts',
  'shell/keepFocus.ts',
  'shell/scrolls.ts',
  'shell/submitByKeys.ts',
  'shell/useHeadingFocus.ts',
  'shell/useTitle.ts',
  'ui/IconButton.ts',
  'ui/box.ts',
  'ui/focusWhenThere.ts',
  'ui/focusable.ts',
  'ui/global.ts',
  'ui/measuring.ts',
  'ui/shelves.ts',
  'ui/space.ts',
  'ui/text.ts',
  'ui/textures.ts',
  'ui/typeAhead.ts',
  'ui/uncovered.ts',
  'ui/useFileDrop.ts',
  'ui/useNarrow.ts',
  'ui/useShortcut.ts',
];
