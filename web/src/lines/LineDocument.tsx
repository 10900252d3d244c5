import type { ReactNode } from 'react';
import { Button } from '../ui/Button.tsx';
import { AnswerBody, AnswerPane, Foot } from '../ui/layout.ts';
import { KeyHint, Lead, Push, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { type LineColumn, LineTable } from './LineTable.tsx';
import { Refusal } from './Refusal.tsx';
import type { TypedLine } from './typedLines.tsx';
import type { LineDocumentState } from './useLineDocument.ts';

interface Props<Line extends TypedLine, Head, Input> {
  readonly of: LineDocumentState<Line, Head>;
  /** What it comes to, in a sentence. */
  readonly title: ReactNode;
  readonly lead: ReactNode;
  /** What is said once for all lines, beside the title. */
  readonly beside?: ReactNode;
  readonly columns: readonly LineColumn<Line>[];
  readonly beneath?: (line: Line, index: number, span: number) => ReactNode;
  readonly adder?: ReactNode;
  /** Lines belong to something else, and cannot be taken out. */
  readonly isFixed?: boolean;
  /** More questions under the lines. */
  readonly more?: ReactNode;
  readonly command: {
    readonly error: unknown;
    readonly isPending: boolean;
    readonly isSuccess: boolean;
    mutate(input: Input): void;
  };
  /** What is sent, once everything can be read; null until then. */
  readonly input: (() => Input) | null;
  /** What posting does, like “Move 2 lines”. */
  readonly action: string;
  /** Fields that say beside themselves what is wrong with them. */
  readonly shownAt: readonly string[];
  readonly ways?: ReactNode;
  /** How an owner posts it below zero, for a reason. */
  readonly over?: { readonly action: string; readonly input: (reason: string) => Input };
  /** Beside the button: why, a remark, what it comes to. */
  readonly foot?: ReactNode;
}

/** A document that types lines: what it comes to, its lines, why it was refused, and one bar that posts it. */
export function LineDocument<Line extends TypedLine, Head, Input>(props: Props<Line, Head, Input>) {
  const { of, command, input, over } = props;
  // Once it is posted, another page is on its way: a second click that comes late posts nothing more.
  const isGone = command.isPending || command.isSuccess;
  const post = () => {
    if (input && !isGone) command.mutate(input());
  };
  useShortcut('Enter', post, { ctrl: true });
  return (
    <AnswerPane>
      <AnswerBody>
        <Row $wrap $end>
          <div>
            <h1>{props.title}</h1>
            <Lead>{props.lead}</Lead>
          </div>
          {props.beside && (
            <>
              <Push />
              {props.beside}
            </>
          )}
        </Row>
        <LineTable
          lines={of.lines}
          body={of.body}
          columns={props.columns}
          onRemove={props.isFixed ? undefined : ({ key }) => of.remove(key)}
          {...(props.beneath ? { beneath: props.beneath } : {})}
          adder={props.adder}
        />
        {props.more}
        <Refusal
          error={command.error}
          shownAt={props.shownAt}
          ways={props.ways}
          {...(over && input
            ? {
                over: {
                  action: over.action,
                  busy: isGone,
                  post: (reason: string) => command.mutate(over.input(reason)),
                },
              }
            : {})}
        />
      </AnswerBody>
      <Foot>
        <Button look="go" isDisabled={input === null} busy={isGone} onPress={post}>
          {props.action}
        </Button>
        {props.foot}
        <Push />
        <KeyHint>Ctrl Enter</KeyHint>
      </Foot>
    </AnswerPane>
  );
}
