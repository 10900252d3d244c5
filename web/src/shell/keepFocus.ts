import { FOCUSABLE } from '../ui/focusable.ts';

/** Where something that had the focus was, so that the next thing can have it. */
interface Place {
  /** What was taken away, with the focused element in it; as it was. */
  readonly gone: Element;
  readonly parent: Node;
  readonly next: Node | null;
  readonly before: Node | null;
  /** Which of the focusable elements in it had the focus. */
  readonly at: number;
  /** What has come in its stead. */
  readonly instead: Element | null;
  /** What was pressed to open it. */
  readonly opener: Element | null;
}

/**
 * Keeps the focus somewhere: what had it and goes away (a row that is removed, a deed that is done, a form that is saved)
 * gives it to what comes next, the same column of the next row, or else what comes before; what was opened by a button gives
 * it back to that. Whoever puts it elsewhere comes first: nothing is moved unless it has fallen to nowhere.
 * @returns how to end that
 */
export function keepFocus(): () => void {
  let last: Element | null = null;
  /** The last one on the page itself, for what lies over it, and the one before that. */
  let onPage: Element | null = null;
  let before: Element | null = null;
  let place: Place | null = null;
  /** The page on which something had the focus last; another page begins at its heading. */
  let page = '';
  /** The button that was pressed last, if nothing else was since and nothing has taken the focus for it. */
  let pressed: Element | null = null;
  let isMoving = false;
  let opened: { readonly by: Element; readonly into: Element } | null = null;
  const onPress = (event: Event) => {
    const isPress = !(event instanceof KeyboardEvent) || event.key === 'Enter' || event.key === ' ';
    pressed = isPress && event.target instanceof Element ? event.target.closest('button, a[href]') : null;
  };
  const onFocus = ({ target }: FocusEvent) => {
    if (!(target instanceof Element)) return;
    // It went there by itself, with nothing pressed since: what was pressed has opened it.
    if (!isMoving && pressed && pressed !== target) {
      opened = { by: pressed, into: target };
      pressed = null;
    }
    last = target;
    place = null;
    page = window.location.pathname;
    if (target !== onPage && target.closest('#main')) [before, onPage] = [onPage, target];
  };
  /** What was done cannot be done again for now, as a form that is saved: one is where one was before. */
  const onDisabled = () => {
    if (!isNowhere() || !last?.isConnected || !last.matches(':disabled')) return;
    const back = before?.isConnected && before.matches(FOCUSABLE) && isShown(before) ? before : headingOf();
    if (back instanceof HTMLElement) back.focus();
  };
  const onChange = (records: readonly MutationRecord[]) => {
    for (const { removedNodes, target, nextSibling, previousSibling } of records)
      for (const node of removedNodes) {
        if (!(node instanceof Element) || !last || !node.contains(last) || last.isConnected) continue;
        const all = node.matches(FOCUSABLE) ? [node] : [...node.querySelectorAll(FOCUSABLE)];
        const at = all.indexOf(last);
        const opener = opened && node.contains(opened.into) ? opened.by : null;
        place = { gone: node, parent: target, next: nextSibling, before: previousSibling, at, instead: null, opener };
      }
    if (last?.matches(':disabled')) later(onDisabled);
    if (!place) return;
    const { parent, gone } = place;
    const added = records.filter(({ target }) => target === parent).flatMap(({ addedNodes }) => [...addedNodes]);
    const instead = added.find((node): node is Element => node instanceof Element && node.nodeName === gone.nodeName);
    if (instead) place = { ...place, instead };
    // What opened it made room for it, and comes back.
    const opener = added.find((node): node is Element => isLike(node, place?.opener ?? null));
    if (opener) place = { ...place, opener };
    later(settle);
  };
  const settle = () => {
    const from = place;
    if (!from || !isNowhere() || last?.isConnected) return;
    place = null;
    if (page !== window.location.pathname) return;
    const found = openerOf(from) ?? nextOf(from) ?? (onPage?.isConnected ? onPage : null) ?? headingOf();
    // What is opened may still be on its way.
    isMoving = true;
    if (found instanceof HTMLElement) found.focus();
    isMoving = false;
  };
  const observer = new MutationObserver(onChange);
  observer.observe(document.body, { childList: true, subtree: true, attributeFilter: ['disabled'] });
  const onBlur = () => place && later(settle);
  document.addEventListener('focusin', onFocus);
  window.addEventListener('keydown', onPress, { capture: true });
  window.addEventListener('pointerdown', onPress, { capture: true });
  document.addEventListener('focusout', onBlur);
  return () => {
    observer.disconnect();
    document.removeEventListener('focusin', onFocus);
    window.removeEventListener('keydown', onPress, { capture: true });
    window.removeEventListener('pointerdown', onPress, { capture: true });
    document.removeEventListener('focusout', onBlur);
  };
}

/** When whoever knows better has put the focus where it belongs. */
const later = (act: () => void) =>
  requestAnimationFrame(() => requestAnimationFrame(() => requestAnimationFrame(() => act())));

const isNowhere = () => document.activeElement === null || document.activeElement === document.body;
const isShown = (element: Element) => element.checkVisibility?.() ?? true;
const focusableIn = (node: Element): Element[] =>
  (node.matches(FOCUSABLE) ? [node] : [...node.querySelectorAll(FOCUSABLE)]).filter(isShown);

const isLike = (node: Node, gone: Element | null): boolean =>
  node instanceof Element &&
  gone !== null &&
  node.nodeName === gone.nodeName &&
  node.textContent === gone.textContent &&
  node.ariaLabel === gone.ariaLabel;

const openerOf = ({ opener }: Place): Element | null =>
  opener?.isConnected && opener.matches(FOCUSABLE) && isShown(opener) ? opener : null;

function nextOf({ gone, parent, next, before, at, instead }: Place): Element | null {
  const same = instead?.isConnected ? focusableIn(instead) : [];
  if (same.length > 0) return same[at] ?? same[0] ?? null;
  // What lies over the page is followed by nothing in it; what stands beside it there is no place to go.
  if (!(parent instanceof Element) || !parent.closest('#main')) return null;
  // A row of the same kind has the same columns; of anything else the first comes next.
  const inNext = along(next, 'nextSibling');
  if (inNext) return (inNext.node.nodeName === gone.nodeName ? inNext.all[at] : undefined) ?? inNext.all[0] ?? null;
  const inBefore = along(before, 'previousSibling');
  if (inBefore)
    return (inBefore.node.nodeName === gone.nodeName ? inBefore.all[at] : undefined) ?? inBefore.all.at(-1) ?? null;
  // What stands around it, and then what follows that.
  for (let around: Node | null = parent; around && around !== document.body; around = around.parentNode) {
    // What lies outside of the page, like what was said at its foot, follows nothing in it.
    if (around instanceof Element && around.id === 'main') break;
    if (!around.isConnected) continue;
    const after = along(around.nextSibling, 'nextSibling') ?? along(around.previousSibling, 'previousSibling');
    if (after) return after.all[0] ?? null;
  }
  return null;
}

/** The first of a row of siblings that holds something focusable. */
function along(from: Node | null, way: 'nextSibling' | 'previousSibling') {
  for (let node = from; node; node = node[way]) {
    if (!(node instanceof Element) || !node.isConnected) continue;
    const all = focusableIn(node);
    if (all.length > 0) return { node, all };
  }
  return null;
}

function headingOf(): HTMLElement | null {
  const heading = document.querySelector<HTMLElement>('#main h1');
  if (heading) heading.tabIndex = -1;
  return heading;
}
