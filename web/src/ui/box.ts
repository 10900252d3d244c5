import styled, { css } from 'styled-components';

/** The look of everything that is typed or chosen: its name above, a box, what is wrong with it beneath. */
export const column = css`display: flex; flex-direction: column; gap: 3px; min-width: 0;`;
export const labelLook = css`font-size: 12px; color: var(--ink-2);`;
export const wrongLook = css`color: var(--short-ink); font-size: 12.5px; white-space: normal;`;

/** Where a finger presses: on phones and tablets, and wherever there is no room for more than a finger's width. */
export const FINGER = '(pointer: coarse), (max-width: 820px)';
/** As high as a finger needs. */
export const forFingers = css`@media ${FINGER} { min-height: 44px; }`;

/** The box itself; its parent part says with data attributes that it is invalid, disabled or only to be read. */
export const boxLook = css`
  border: 1px solid var(--line); border-radius: 3px; background: var(--field); min-height: 34px; color: var(--ink); ${forFingers}
  [data-invalid] > &, &[data-invalid] { border-color: var(--short); }
  [data-disabled] > &, &[data-disabled] { opacity: 0.55; }
  [data-readonly] > & { background: none; border-style: dashed; }
`;
/** What stands beside a field in small letters. */
export const Aside = styled.small`color: var(--ink-3); white-space: nowrap;`;
/** What opens beneath a field. */
export const drop = css`
  background: var(--sheet); border: 1px solid var(--line); border-radius: 4px; box-shadow: 0 8px 28px var(--shade); outline: none;
  max-height: min(60vh, 420px); overflow: auto;
`;
export const optionLook = css`
  padding: 6px 12px; min-height: 30px; ${forFingers} cursor: default; outline: none; display: flex; align-items: center; gap: 8px;
  &[data-focused] { background: var(--birch); box-shadow: inset 3px 0 var(--honey); }
  &[data-selected] { font-weight: 600; }
  &[data-disabled] { color: var(--ink-3); }
  @media (forced-colors: active) { &[data-focused] { outline: 2px solid Highlight; outline-offset: -2px; } }
`;

/** Read out, and not seen. */
export const unseen = css`position: absolute; width: 1px; height: 1px; margin: -1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap;`;
