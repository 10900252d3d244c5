// @vitest-environment jsdom
import { expect, it, vi } from 'vitest';
import { focusWhenThere } from './focusWhenThere.ts';

it('waits for what is drawn some frames later', async () => {
  focusWhenThere(() => document.querySelector('input'));
  for (let frame = 0; frame < 3; frame += 1) await new Promise((resolve) => requestAnimationFrame(resolve));
  const field = document.body.appendChild(document.createElement('input'));
  await vi.waitFor(() => expect(document.activeElement).toBe(field));
});
