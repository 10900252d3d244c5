import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';

/** How picking looks on a phone: dark around, one white card, everything a thumb wide. */
export const Page = styled.div`min-height: 100%; background: var(--ebony); color: var(--on-dark); display: flex; flex-direction: column;`;
export const Top = styled.header`
  padding: 12px 16px 8px; display: flex; justify-content: space-between; align-items: center; gap: 4px;
  h1 { font-size: 20px; } small { color: var(--on-band-faint); font-size: 13px; } > div { flex: 1; min-width: 0; }
  a, button { color: var(--on-dark-go); min-height: 44px; min-width: 44px; display: inline-flex; align-items: center; justify-content: center; background: transparent; border: 0; cursor: pointer; }
`;
export const Progress = styled.div`display: flex; forced-color-adjust: none; height: 12px; gap: 2px; padding: 0 16px;`;
export const Piece = styled.i<{ $is: 'done' | 'now' | 'open' }>`
  flex: 1; transform: skewX(-20deg); background: ${({ $is }) => ({ done: 'var(--honey)', now: 'var(--phone-now)', open: 'var(--phone-open)' })[$is]};
`;
export const Card = styled.section`
  margin: 12px 12px 0; background: var(--sheet); color: var(--ink); border-radius: 4px; padding: 14px 16px; flex: 1; display: flex; flex-direction: column; > button, > a { min-height: 60px; }
`;
export const Where = styled.div`display: flex; align-items: baseline; gap: 10px; b { font: 700 54px/1 var(--display); } span { color: var(--ink-2); }`;
export const What = styled.div`display: flex; gap: 12px; align-items: center; margin: 12px 0 4px; b { font-size: 18px; line-height: 1.15; } small { color: var(--ink-2); }`;
export const Pad = styled.div`
  display: grid; grid-template-columns: 64px 1fr 64px; gap: 8px;
  button, input { height: 60px; border: 1px solid var(--line); border-radius: 3px; font-size: 26px; background: var(--field); text-align: center; width: 100%; padding: 0; }
  input { font-weight: 600; } input[aria-invalid='true'] { border-color: var(--short); }
`;
export const Big = styled(
  Button,
)`margin-top: 10px; min-height: 62px; background: var(--moss); border-color: var(--moss); color: var(--bright); font: 600 19px var(--text); width: 100%;`;
export const Says = styled.p<{ $left?: boolean }>`
  text-align: ${({ $left }) => ($left ? 'left' : 'center')}; margin-top: 8px; color: var(--ink-2); &[role='alert'] { color: var(--short-ink); font-weight: 600; }
`;
export const Bottom = styled.footer`
  padding: 10px 16px 14px; display: flex; gap: 12px; align-items: center; color: var(--on-band-faint); font-size: 13.5px; min-height: 66px; line-height: 1.25;
  b { color: var(--on-dark); } > span { flex: 1; min-width: 0; }
  button { min-height: 48px; color: var(--on-dark-go); border-color: var(--on-dark-line); background: transparent; }
`;
/** The place on the cart of one that a run serves. */
export const Slot = styled.b`
  flex: none; display: inline-grid; place-items: center; width: 26px; height: 26px; background: var(--honey); color: var(--on-honey); font: 700 15px var(--display);
  transform: skewX(-12deg);
`;
