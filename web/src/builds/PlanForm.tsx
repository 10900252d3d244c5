import { useRef } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { coverOf } from '../coverage/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { Lead, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** Plans one build; several at once are planned from Cover. */
export function PlanForm({ itemId, purpose }: { itemId: number | null; purpose: 'build' | 'rework' }) {
  const go = useNavigate();
  const notify = useNotify();
  const format = useFormat();
  const quantityField = useRef<HTMLInputElement>(null);
  const screen = useTypedScreen(`plan.${itemId ?? ''}.${purpose}`);
  const [chosen, setChosen] = useTyped(screen, 'item', itemId, z.number().nullable());
  const [quantity, setQuantity] = useTyped(screen, 'quantity', '1');
  const [due, setDue] = useTyped(screen, 'due', '');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const item = useQuestion('item', { params: { id: chosen ?? 0 } }, { enabled: chosen !== null }).data;
  const plan = useCommand(
    'planBuilds',
    ({ builds: [build] }) => {
      if (!build) return;
      notify({ text: `${build.number} planned. Its parts are promised.` });
      void go(`/build/${build.id}`);
    },
    screen.forget,
  );
  const problem = problemOf(plan.error);
  const submit = () => {
    if (chosen !== null)
      plan.mutate({
        body: { builds: [{ itemId: chosen, purpose, quantity: plainTyped(quantity, item), due: due || null, remark }] },
      });
  };
  return (
    <>
      <h1>{purpose === 'rework' ? 'Plan a rework' : 'Plan a build'}</h1>
      <Lead>
        {item
          ? `${item.name}: ${format.quantity(item.onHand, item.unit, item.decimals)} on hand.`
          : 'Product, quantity and due date.'}
      </Lead>
      <Form
        $top={16}
        $max={560}
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        <Wide>
          <ItemPicker
            label="Product"
            chosen={item ? `${item.name} · ${item.code}` : ''}
            counted
            onPick={(picked, _, many) => {
              setChosen(picked.id);
              if (many) setQuantity(many);
              quantityField.current?.focus();
            }}
            autoFocus={itemId === null}
            error={problemAt(plan.error, 'builds.0.itemId')}
          />
        </Wide>
        <Field
          label="Quantity"
          numeric
          value={quantity}
          onChange={setQuantity}
          suffix={item?.unit}
          autoFocus={itemId !== null}
          inputRef={quantityField}
          error={problemAt(plan.error, 'builds.0.quantity')}
        />
        <DayField label="Due day" value={due} onChange={setDue} error={problemAt(plan.error, 'builds.0.due')} />
        <Wide>
          <TextArea
            label="Remark"
            value={remark}
            onChange={setRemark}
            error={problemAt(plan.error, 'builds.0.remark')}
          />
        </Wide>
        <Wide>
          <ProblemBox
            error={plan.error}
            shownAt={['builds.*.itemId', 'builds.*.quantity', 'builds.*.due', 'builds.*.remark']}
            ways={problem?.code === 'no-definition-in-use' && <LinkButton to="/define">Open Define</LinkButton>}
          />
          <Row>
            <Button look="go" type="submit" isDisabled={chosen === null} busy={plan.isPending}>
              {purpose === 'rework' ? 'Plan the rework' : 'Plan the build'}
            </Button>
            {chosen !== null && (
              <LinkButton to={coverOf([{ itemId: chosen, quantity }])}>Check parts in Cover</LinkButton>
            )}
          </Row>
        </Wide>
      </Form>
    </>
  );
}
