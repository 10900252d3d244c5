import type { RepairDetail } from '@yosegi/contract';
import { useState } from 'react';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { TextArea } from '../ui/TextArea.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Row } from '../ui/text.ts';

const SHOWN = ['fault', 'accessories', 'wantedOn', 'price', 'jobTag', 'report'];

/** What is said of a repair, to be said otherwise. */
export function ChangeForm({ repair, onDone }: { repair: RepairDetail; onDone: () => void }) {
  const [fault, setFault] = useState(repair.fault);
  const [accessories, setAccessories] = useState(repair.accessories);
  const [wantedOn, setWantedOn] = useState(repair.wantedOn ?? '');
  const [warranty, setWarranty] = useState(repair.warranty);
  const [price, setPrice] = useState(repair.price ?? '');
  const [jobTag, setJobTag] = useState(repair.jobTag);
  const [report, setReport] = useState(repair.report);
  const change = useCommand('changeRepair', onDone);
  const at = (name: string) => problemAt(change.error, name);
  return (
    <Form
      $top={4}
      $bottom={14}
      $max={640}
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate({
          params: { id: repair.id },
          body: {
            version: repair.version,
            fault: fault.trim(),
            accessories,
            wantedOn: wantedOn || null,
            warranty,
            price: warranty || price.trim() === '' ? null : price.trim(),
            jobTag,
            report,
          },
        });
      }}
    >
      <Wide>
        <TextArea label="Problem" value={fault} onChange={setFault} error={at('fault')} />
      </Wide>
      <Wide>
        <TextArea label="Work done, for the customer" value={report} onChange={setReport} error={at('report')} />
      </Wide>
      <Field label="Accessories" value={accessories} onChange={setAccessories} error={at('accessories')} />
      <DayField label="Wanted by" value={wantedOn} onChange={setWantedOn} error={at('wantedOn')} />
      <Tick isOn={warranty} onChange={setWarranty}>
        Under warranty: no charge
      </Tick>
      {!warranty && <Field label="Price agreed" numeric value={price} onChange={setPrice} error={at('price')} />}
      <Field label="Job tag" value={jobTag} onChange={setJobTag} error={at('jobTag')} />
      <Wide>
        <ProblemBox error={change.error} shownAt={SHOWN} />
        <Row>
          <Button look="go" type="submit" busy={change.isPending}>
            Save
          </Button>
          <Button look="ghost" onPress={onDone}>
            Cancel
          </Button>
        </Row>
      </Wide>
    </Form>
  );
}
