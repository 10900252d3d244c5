/** Focuses something in the next frame, or in the first one in which it is drawn: on a busy machine that can be several later. */
export function focusWhenThere(find: () => HTMLElement | null | undefined, frames = 60): void {
  requestAnimationFrame(() => {
    const element = find();
    if (element) element.focus();
    else if (frames > 1) focusWhenThere(find, frames - 1);
  });
}
