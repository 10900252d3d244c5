import type { RepairRow } from '@yosegi/contract';
import { expect, it } from 'vitest';
import { groups, hereWords, standsAs, toneOf } from './words.ts';

const repair = (state: string, more: object = {}) =>
  ({ state, waiting: [], declined: null, late: false, ...more }) as unknown as RepairRow;
const short = { waiting: [{ name: 'Cell' }] };

it('says where a repair stands, and in which tone', () => {
  const says = (state: string, more: object = {}) => {
    const row = repair(state, more);
    return [standsAs(row), toneOf(row)];
  };
  expect(says('taken-in')).toEqual(['to inspect', 'coming']);
  expect(says('taken-in', short)).toEqual(['short of parts', 'short']);
  expect(says('asked')).toEqual(['customer to decide', 'short']);
  expect(says('asked', short)).toEqual(['customer to decide', 'short']);
  expect(says('agreed')).toEqual(['agreed, to start', 'coming']);
  expect(says('on-bench')).toEqual(['on the bench', 'coming']);
  expect(says('on-bench', short)).toEqual(['short of parts', 'short']);
  expect(says('ready')).toEqual(['ready', 'ok']);
  expect(says('ready', { declined: 'Too dear', ...short })).toEqual(['ready to return unrepaired', 'ok']);
  expect(says('given-back', short)).toEqual(['given back', 'held']);
});

it('groups what is here by what to see to first, each in one group', () => {
  const states = ['taken-in', 'asked', 'agreed', 'on-bench', 'ready'];
  const of = (state: string) => groups.filter(([, isIn]) => isIn(repair(state))).map(([title]) => title);
  expect(states.map(of)).toEqual([
    ['To inspect'],
    ['With the customer'],
    ['Agreed, to be started'],
    ['On the bench'],
    ['Ready to give back'],
  ]);
});

it('says how what is here stands', () => {
  expect(hereWords([])).toBe('No repairs here.');
  expect(hereWords([repair('ready')])).toBe('1 repair here: 1 ready to give back.');
  expect(hereWords([repair('taken-in', { late: true }), repair('on-bench'), repair('taken-in')])).toBe(
    '3 repairs here: 1 on the bench, 2 to inspect; 1 late.',
  );
});
