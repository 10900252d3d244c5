import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseSync } from 'vite';

/** A text that somebody can see, with what is filled in as `{…}`. */
export interface Text {
  readonly text: string;
  /** From the root of the project. */
  readonly file: string;
  readonly line: number;
  readonly role: Role;
}

/** Where a text stands, as far as its rules differ. */
export type Role = 'text' | 'button' | 'title' | 'detail';

interface Node {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly [key: string]: unknown;
}

/** Where texts for people are written. */
const FOLDERS = ['web/src', 'contract/src', 'server/src', 'core/src', 'demo/src', 'devices/src'];
const HOLE = '{…}';

/** Every text in the sources of a project, sorted by text and then by file. */
export function textsOf(root: string): readonly Text[] {
  const texts = FOLDERS.flatMap((folder) => filesIn(root, folder)).flatMap((file) =>
    textsIn(readFileSync(join(root, file), 'utf8'), file),
  );
  return texts.sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : a.file < b.file ? -1 : 1));
}

const filesIn = (root: string, folder: string): string[] =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name))
    .map((name) => `${folder}/${name}`);

/** The texts in one source file. */
export function textsIn(source: string, file: string): readonly Text[] {
  const { program } = parseSync(file, source);
  const found: Text[] = [];
  const starts = [0];
  for (let at = source.indexOf('\n'); at >= 0; at = source.indexOf('\n', at + 1)) starts.push(at + 1);
  const lineOf = (start: number) => {
    let low = 0;
    for (let high = starts.length; high - low > 1; ) {
      const middle = (low + high) >> 1;
      if ((starts[middle] ?? 0) <= start) low = middle;
      else high = middle;
    }
    return low + 1;
  };
  const say: Say = (raw, { start }, role, isHeard = false) => {
    const text = raw.replace(/\s+/g, ' ').trim();
    if (isHeard ? /\p{L}{3}/u.test(text) : reads(text)) found.push({ text, file, line: lineOf(start), role });
  };
  visit(program as unknown as Node, 'text', say);
  return found;
}

/** @param isHeard whether it can be nothing but a text: a word that is filled into one */
type Say = (raw: string, at: Node, role: Role, isHeard?: boolean) => void;

/** Whether it reads as a text rather than as a key, a name of the code or a style. */
const reads = (text: string): boolean => {
  const words = text.replaceAll(HOLE, ' ').trim();
  if (!/\p{L}{2}/u.test(words)) return false;
  if (/^(SELECT|INSERT|UPDATE|DELETE|WITH|CREATE|PRAGMA|BEGIN|FROM|WHERE|AND|JOIN|LEFT|ORDER BY|EXISTS)\b/.test(words))
    return false;
  if (/\b(SELECT|JOIN|EXISTS)\b|\bAS [a-z]/.test(words)) return false;
  // Columns of a statement, tags of a language.
  if (/\b[a-z]\.[a-z_]+(,| =| (IN|IS|DESC)\b|$)|[a-z]_[a-z]|\bCOLLATE\b|^[a-z]{2}-[A-Z]{2} /.test(words)) return false;
  // Paths, selectors, media types, settings of a style.
  if (!/\s/.test(words) && /^[./#@:[(]|:\/\/|^[\w-]+\/[\w.+-]+$/.test(words)) return false;
  if (/[{}<>]|\w=\S|^[\w-]+: ?[^;]+;|^\w+\(|var\(|^--/.test(words)) return false;
  return (
    /\p{L}.*\s.*\p{L}/u.test(words) ||
    /^\p{Lu}\p{Ll}+[.…?!]?$/u.test(words) ||
    // A word beside what is filled in.
    (text.includes(HOLE) && /^(\S*\{…\}\S* )+\p{Ll}{3,}\b(?![-.:/_])|(?<![-.:/_])\b\p{Ll}{3,} \S*\{…\}/u.test(text))
  );
};

/** Attributes of an element that nobody sees. */
const TECHNICAL =
  /^(className|type|look|to|href|role|id|key|name|d|viewBox|style|as|src|path|fill|stroke|transform|slot|method|autoComplete|inputMode|accept|rel|target|htmlFor|tone|align|data-(?!label).*|\$.*|aria-(?!label$|description$|roledescription$|valuetext$).*)$/;
/** Functions that take names of the code. */
const CODED =
  /^(querySelector|querySelectorAll|closest|matches|getElementById|addEventListener|removeEventListener|getAttribute|setAttribute|removeAttribute|useTypedScreen|useTyped|useAddress|useQuestion|useCommand|useOwnText|useLocalNumber|useShortcut|useCan|canDo|require|found|startsWith|endsWith|includes|split|join|replace|replaceAll|test|match|describe|all|one|run|get|set|has|register|log|info|warn|debug|header|headers|type|setItem|getItem|removeItem|later|lazy|part|count)$/;

function visit(node: Node, role: Role, say: Say): void {
  switch (node.type) {
    case 'ImportDeclaration':
    case 'ExportAllDeclaration':
    case 'TSTypeAnnotation':
    case 'TSTypeAliasDeclaration':
    case 'TSInterfaceDeclaration':
    case 'TaggedTemplateExpression':
    case 'TSLiteralType':
    case 'ImportExpression':
      // A style holds no text, but what is filled in may.
      if (node.type === 'TaggedTemplateExpression')
        each((node.quasi as Node).expressions, (one) => visit(one, role, say));
      return;
    case 'ExportNamedDeclaration':
      if (node.declaration) visit(node.declaration as Node, role, say);
      return;
    case 'JSXElement':
    case 'JSXFragment':
      element(node, role, say);
      return;
    case 'JSXAttribute': {
      const name = nameOf(node.name as Node);
      const value = node.value as Node | null;
      if (value && !TECHNICAL.test(name))
        visit(value, name === 'action' || name === 'keep' ? 'button' : name === 'title' ? 'title' : role, say);
      else if (value?.type === 'JSXExpressionContainer') visit(value, role, onlyDeep(say));
      return;
    }
    case 'Property': {
      const key = nameOf(node.key as Node);
      if (TECHNICAL.test(key) && key !== 'name' && key !== 'to') visit(node.value as Node, role, onlyDeep(say));
      else visit(node.value as Node, key === 'title' || key === 'detail' ? key : role, say);
      return;
    }
    case 'CallExpression':
    case 'NewExpression': {
      const callee = node.callee as Node;
      const name = nameOf(callee.type === 'MemberExpression' ? (callee.property as Node) : callee);
      visit(callee, role, say);
      // What is counted reads as its noun.
      if (name === 'count') each((node.arguments as Node[]).slice(1), (one) => filledIn(one, role, say));
      const isCoded = CODED.test(name) || name === 'Refusal' || name === 'Error' || name === 'route';
      each(node.arguments, (one) => visit(one, role, isCoded ? onlyDeep(say) : say));
      return;
    }
    case 'BinaryExpression':
      if (/^[=!]==?$|^in$/.test(node.operator as string)) {
        for (const side of [node.left, node.right] as Node[]) if (side.type !== 'Literal') visit(side, role, say);
        return;
      }
      if (node.operator !== '+') break;
      say(written(node), node, role);
      return;
    case 'MemberExpression':
      visit(node.object as Node, role, say);
      return;
    case 'SwitchCase':
      each(node.consequent, (one) => visit(one, role, say));
      return;
    case 'ArrayExpression':
      // Words that are listed beside others: `[…, isLate && 'late']`.
      for (const one of node.elements as Node[])
        if (isNode(one)) (/^(Conditional|Logical)Expression$/.test(one.type) ? filledIn : visit)(one, role, say);
      return;
    case 'Literal':
    case 'TemplateLiteral':
      if (node.type === 'TemplateLiteral' || typeof node.value === 'string') say(written(node), node, role);
      each(node.expressions, (one) => (reads(written(node)) ? filledIn(one, role, say) : visit(one, role, say)));
      return;
  }
  for (const [key, value] of Object.entries(node)) {
    if (key === 'typeAnnotation' || key === 'typeArguments' || key === 'typeParameters' || key === 'returnType')
      continue;
    if (Array.isArray(value)) each(value, (one) => visit(one, role, say));
    else if (isNode(value)) visit(value, role, say);
  }
}

/** What is filled into a text: its words are heard, however short they are. */
function filledIn(node: Node, role: Role, say: Say): void {
  if (node.type === 'ConditionalExpression') {
    visit(node.test as Node, role, say);
    for (const one of [node.consequent, node.alternate] as Node[]) filledIn(one, role, say);
  } else if (node.type === 'LogicalExpression') {
    visit(node.left as Node, role, say);
    filledIn(node.right as Node, role, say);
  } else if (node.type === 'Literal' && typeof node.value === 'string') say(node.value, node, role, true);
  else visit(node, role, say);
}

/** What is said directly in it is a name of the code; functions and elements inside may say something to people. */
const onlyDeep =
  (say: Say): Say =>
  (raw, at, role, isHeard) => {
    if (isHeard || /[\p{L}] .*[\p{L}] .*\p{L}/u.test(raw)) say(raw, at, role, isHeard);
  };

/** Elements that stand within a sentence. */
const INLINE = /^(b|i|em|strong|small|span|a|code|kbd|br|Faint|Muted|Late|Link|LinkButton|Q|Key|When)$/;

function element(node: Node, role: Role, say: Say): void {
  const opening = node.openingElement as Node | undefined;
  const name = opening ? nameOf(opening.name as Node) : '';
  each(opening?.attributes, (one) => visit(one, role, say));
  const own: Role = name === 'Button' ? 'button' : role;
  const children = node.children as Node[];
  const inner = children.map((child) => sentence(child)).join('');
  if (children.some((child) => child.type === 'JSXText' && /\S/.test(String(child.value)))) say(inner, node, own);
  for (const child of children)
    if (child.type === 'JSXExpressionContainer') filledIn(child.expression as Node, own, say);
    else if (child.type !== 'JSXText') visit(child, own, say);
}

/** What an element says in the sentence around it. */
function sentence(child: Node): string {
  if (child.type === 'JSXText') return String(child.value);
  if (child.type === 'JSXElement') {
    const name = nameOf((child.openingElement as Node).name as Node);
    if (name === 'br') return ' ';
    return INLINE.test(name) ? (child.children as Node[]).map(sentence).join('') : ` ${HOLE} `;
  }
  if (child.type === 'JSXExpressionContainer') {
    const inner = child.expression as Node;
    return inner.type === 'JSXEmptyExpression' ? '' : inner.type === 'Literal' ? String(inner.value) : HOLE;
  }
  return '';
}

/** A text as it is written, with holes for what is filled in. */
function written(node: Node): string {
  if (node.type === 'Literal') return typeof node.value === 'string' ? node.value : HOLE;
  if (node.type === 'TemplateLiteral')
    return (node.quasis as Node[]).map(({ value }) => (value as { cooked: string | null }).cooked ?? '').join(HOLE);
  if (node.type === 'BinaryExpression' && node.operator === '+')
    return written(node.left as Node) + written(node.right as Node);
  return HOLE;
}

const isNode = (value: unknown): value is Node =>
  typeof value === 'object' && value !== null && typeof (value as Node).type === 'string';
const each = (nodes: unknown, act: (node: Node) => void) => {
  if (Array.isArray(nodes)) for (const node of nodes) if (isNode(node)) act(node);
};
const nameOf = (node: Node): string =>
  typeof node.name === 'string'
    ? node.name
    : typeof node.value === 'string'
      ? node.value
      : isNode(node.property)
        ? nameOf(node.property)
        : isNode(node.name)
          ? nameOf(node.name)
          : '';
