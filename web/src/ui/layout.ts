import styled from 'styled-components';
import { type Spaced, spaced } from './space.ts';

/** strip + sheet + margin: a narrow list, the record on white paper, its live consequences. */
export const Three = styled.div<{ $margin?: boolean }>`
  display: grid; grid-template-columns: 264px minmax(0, 1fr) ${({ $margin = true }) => ($margin ? '292px' : '')}; height: 100%; min-height: 0;
  @media (max-width: 900px) { display: block; overflow: auto; }
`;
export const Strip = styled.aside`
  background: var(--birch); border-right: 1px solid var(--line); display: flex; flex-direction: column; min-height: 0; overflow: hidden;
  /* On a narrow screen the record has the room; the list opens where one looks for something in it. */
  @media (max-width: 900px) {
    border-right: 0; border-bottom: 1px solid var(--line);
    > :not(:first-child) { display: none; }
    &:focus-within > :not(:first-child), &[data-alone] > :not(:first-child) { display: block; height: 50vh; max-height: 50vh; }
  }
`;
export const StripHead = styled.div`padding: 14px 14px 10px; display: grid; grid-template-columns: minmax(0, 1fr); gap: 8px;`;
export const StripList = styled.nav`overflow: auto; flex: 1; padding-bottom: 12px;`;
export const StripGroup = styled.div`padding: 8px 14px 3px; font-size: 12px; color: var(--ink-2);`;
export const Sheet = styled.section`background: var(--sheet); padding: 18px 22px 40px; overflow: auto; min-width: 0;`;
export const Margin = styled.aside`border-left: 1px solid var(--line); padding: 18px; background: var(--paper); overflow: auto;`;
/** The sheet and the margin beside each other, where the strip is drawn by the page around. */
export const SheetAndMargin = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 292px; min-height: 0;
  @media (max-width: 1100px) { grid-template-columns: minmax(0, 1fr); overflow: auto; > * { overflow: visible; } }
  @media (max-width: 900px) { display: block; overflow: visible; > :first-child { overflow-x: auto; } }
`;
export const SheetHead = styled.div<Spaced>`display: flex; gap: 14px; align-items: center; margin-bottom: 12px; flex-wrap: wrap; ${spaced}`;
export const Scroll = styled.div`height: 100%; overflow: auto;`;
/** A page of its own that scrolls; white where it is one record. */
export const Page = styled(Scroll)<{ $white?: boolean }>`
  padding: 18px 24px 60px; ${({ $white }) => ($white ? 'background: var(--sheet);' : '')}
`;

/** question + answer + act: what I ask on the left, the answer beside it, one bar of actions at the foot. */
export const AskAnswer = styled.div`
  display: grid; grid-template-columns: 306px minmax(0, 1fr); height: 100%; min-height: 0;
  @media (max-width: 900px) { display: block; overflow: auto; > * { height: auto; } }
`;
export const Ask = styled.aside`background: var(--birch); padding: 20px 18px; border-right: 1px solid var(--line); overflow: auto;`;
export const AnswerPane = styled.section`display: flex; height: 100%; flex-direction: column; min-height: 0; min-width: 0;`;
export const AnswerBody = styled.div`
  padding: 20px 24px; overflow: auto; flex: 1; display: flex; flex-direction: column; gap: 14px;
  @media (max-width: 700px) { padding: 14px; }
`;
export const Foot = styled.div`
  padding: 13px 24px; background: var(--sheet); border-top: 1px solid var(--line); display: flex; gap: 12px; align-items: center; flex-wrap: wrap;
`;

export const Cell = styled.div`display: flex; align-items: center; gap: 9px; line-height: 1.15; min-width: 0; > svg, > img { flex: none; }`;
export const Grid = styled.table<Spaced & { $full?: boolean }>`
  ${spaced} ${({ $full }) => ($full ? 'width: 100%;' : '')}
  font-size: 13.5px;
  th { font-weight: 500; font-size: 12px; color: var(--ink-2); text-align: left; border-bottom: 1px solid var(--line); padding: 4px 6px; white-space: nowrap; }
  td { padding: 4px 6px; border-bottom: 1px solid var(--line-soft); height: 40px; }
  td.one-line { white-space: nowrap; }
  td.num, th.num { text-align: right; white-space: nowrap; }
  td > ${Cell} > :is(span, b, a, div) { min-width: 90px; } td:has(> a) { min-width: 90px; } td:first-child:has(> a) { min-width: 110px; }
  td:not(.num, .one-line, :first-child, :empty, :has(> button, > label)) { min-width: 72px; } th.num:not(:empty) { min-width: 40px; }
  td.inset { padding-left: 44px; }
  td small { color: var(--ink-3); }
  @media (max-width: 700px) { td:first-child:not(:has(+ td > ${Cell})) { min-width: 130px; } }
  tr[data-quiet] td { color: var(--ink-3); }
`;
/** A table of typed lines; on a phone each line is a card, whose cells say what they are by their `data-label`. */
export const LineGrid = styled(Grid)`
  @media (max-width: 700px) {
    display: block; thead { display: none; } tbody, tfoot { display: block; }
    tr { position: relative; display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 6px 10px; padding: 10px 0; border-bottom: 1px solid var(--line); }
    td { display: block; height: auto; border: 0; padding: 0; } td:empty { display: none; }
    td:first-child, td[colspan], td[data-wide] + td { grid-column: 1 / -1; } td[data-wide] { display: none; }
    td[data-end] { position: absolute; right: 0; top: 8px; } td:first-child:not([colspan]) { padding-right: 50px; }
    td[data-label]::before { content: attr(data-label); display: block; font-size: 12px; color: var(--ink-2); }
    td.num { text-align: left; } input, button { min-height: 44px; }
  }
`;
export const KeyValue = styled.div`display: flex; justify-content: space-between; gap: 10px; padding: 4px 0; border-bottom: 1px dotted var(--line); > :first-child { min-width: 90px; overflow-wrap: anywhere; } > b:not(:first-child) { flex: none; max-width: 68%; text-align: end; overflow-wrap: anywhere; }`;
export const BigNumber = styled.div<Spaced & { $small?: boolean }>`
  font: 600 ${({ $small }) => ($small ? 32 : 44)}px/1 var(--display); margin: 6px 0 2px; ${spaced}
`;
export const Form = styled.form<Spaced & { $columns?: number }>`
  display: grid; gap: 12px; grid-template-columns: repeat(${({ $columns }) => $columns ?? 2}, minmax(0, 1fr)); align-items: start; ${spaced}
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); }
`;
export const Wide = styled.div`grid-column: 1 / -1;`;
/** Questions that belong together, under a name of their own. */
export const Together = styled.fieldset`border: 0; padding: 0; margin: 0;`;
