/**
 * What is free, coming, promised and short, as CSS: in textures that survive colour-blindness and print. The same in every
 * stave, share and day.
 */
export const textures = {
  free: 'background: linear-gradient(180deg, var(--free), var(--free-deep));',
  coming: 'background: repeating-linear-gradient(-56deg, var(--coming-thread) 0 4px, var(--coming-cloth) 4px 8px);',
  promised: 'background: radial-gradient(var(--promised-dot) 1.2px, var(--promised-cloth) 1.6px) 0 0 / 6px 6px;',
  short: 'border: 1.5px dashed var(--short); background: var(--short-cloth);',
} as const;
export type Texture = keyof typeof textures;
