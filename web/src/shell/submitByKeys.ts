/**
 * Ctrl Enter sends the form one types in, wherever the screen has no other use for it, a field of several lines included.
 * @returns how to end that
 */
export function submitByKeys(): () => void {
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || event.defaultPrevented) return;
    const form = event.target instanceof Element ? event.target.closest('form') : null;
    if (!form) return;
    event.preventDefault();
    // As Enter does in a field of one line: not while the button that sends it is off.
    const button = form.querySelector<HTMLButtonElement>('button[type=submit]');
    if (button && !button.disabled) form.requestSubmit(button);
  };
  window.addEventListener('keydown', onKey);
  return () => window.removeEventListener('keydown', onKey);
}
