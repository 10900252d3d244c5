import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { type Role, textsIn, textsOf } from './extract.ts';
import { leadsNowhere, notOurs, refused, rules } from './rules.ts';

const said = (text: string, role: Role = 'text', file = 'web/src/some.tsx') =>
  refused([{ text, file, line: 1, role }]).map((line) => line.split('\t')[0]);

it('finds what people read, and nothing else', () => {
  const source = `
    import { x } from 'a module of code';
    const Box = styled.div\`color: red and blue;\`;
    const rows = db.all('SELECT name FROM item');
    const words = { late: 'three days late', done: n + ' of them done' };
    const page = <Page className="not for eyes"><h1>Ship {count} now</h1><Button title="What it does">Start <b>run</b></Button></Page>;
    if (state === 'on the bench') say(\`\${n} lines to pick\`);`;
  expect(textsIn(source, 'some.tsx').map(({ text, role }) => [text, role])).toEqual([
    ['three days late', 'text'],
    ['{…} of them done', 'text'],
    ['Ship {…} now', 'text'],
    ['What it does', 'title'],
    ['Start run', 'button'],
    ['{…} lines to pick', 'text'],
  ]);
});

it('finds the short words that are filled into a text, or stand beside what is', () => {
  const source = `
    say(\`\${n} \${n === 1 ? 'waits' : 'wait'} for parts\`, \`\${n} whole · \${m}\`, \`/orders?\${all ? 'all' : 'open'}\`);
    const page = <Faint>{who}{late && ' · waits'}</Faint>;
    const words = [number, isOn ? 'begun' : ''].join(' · ');`;
  expect(textsIn(source, 'some.tsx').map(({ text }) => text)).toEqual([
    '{…} {…} for parts',
    'waits',
    'wait',
    '{…} whole · {…}',
    '· waits',
    'begun',
  ]);
});

it.each([
  ['stands', 'Where it stands'],
  ['waits', 'Nothing waits'],
  ['whole', 'Whole on Friday'],
  ['walk', 'Worth walking now'],
  ['quaint', 'Changed meanwhile'],
  ['of one', 'Price of one'],
  ['say', 'Say why it is late'],
  ['say', 'Scan a part; type a code where it has none'],
  ['like that', 'No task is like that'],
  ['percent', 'Shares above 100 %'],
  ['straight quotes', "What's short"],
  ['it', 'It is over'],
  ['length', `${'one '.repeat(21)}words`],
  ['commas', 'Say what it is now, where it is, what is wrong with it, and by when'],
])('refuses by the rule “%s”', (rule, text) => {
  expect(said(text)).toContain(rule);
});

it('refuses the title of a refusal that is a riddle, and a button that does nothing', () => {
  expect(said('One unit', 'title', 'contract/src/problems/stock.ts')).toEqual(['title']);
  expect(said('One unit', 'title')).toEqual([]);
  expect(said('They are done', 'button')).toEqual(['button']);
  expect(said('Label of it', 'button')).toContain('button');
  expect(said('Print label', 'button')).toEqual([]);
});

it('refuses the words of others that docs/words.md names', () => {
  const rule = notOurs(
    '| we say | for | not |\n| --- | --- | --- |\n| item | what you stock | article, SKU |\n| piece | one | |',
  );
  expect(rule.wrong({ text: 'Two articles', file: 'web/src/some.tsx', line: 1, role: 'text' })).toContain('articles');
  expect(rule.wrong({ text: 'Two pieces', file: 'web/src/some.tsx', line: 1, role: 'text' })).toBeNull();
  expect(rule.wrong({ text: 'SKU', file: 'core/src/exchange/items.ts', line: 1, role: 'text' })).toBeNull();
});

it('refuses to send somebody to a screen that is not there', () => {
  const at = { file: 'web/src/some.tsx', line: 1, role: 'text' } as const;
  const texts = [
    { ...at, text: 'Places and units' },
    { ...at, text: 'Add the rate under Places and units first.' },
    { ...at, text: 'Receive it under Goods in.' },
  ];
  expect(refused(texts, [leadsNowhere(texts)])).toEqual([expect.stringContaining('Goods in')]);
});

it('finds nothing to say about the texts of the application', () => {
  const texts = textsOf(process.cwd());
  const words = notOurs(readFileSync('docs/words.md', 'utf8'));
  expect(refused(texts, [...rules, words, leadsNowhere(texts)])).toEqual([]);
});

it('finds no retired word in what is written about the application', () => {
  const files = [
    'README.md',
    ...readdirSync('docs', { recursive: true, encoding: 'utf8' }).map((name) => `docs/${name}`),
  ];
  const texts = files
    .filter((file) => file.endsWith('.md') && !file.endsWith('licences.md'))
    .flatMap((file) =>
      readFileSync(file, 'utf8')
        .split('\n')
        .map((text, at) => ({ text, file, line: at + 1, role: 'text' as const })),
    );
  const retired = rules.filter(({ name }) => ['stands', 'waits', 'whole', 'walk', 'quaint'].includes(name));
  expect(texts.length).toBeGreaterThan(100);
  expect(refused(texts, retired)).toEqual([]);
});
