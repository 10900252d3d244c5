import { api, type Company } from '@yosegi/contract';
import { useContext, useMemo } from 'react';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { CompanyContext, Format } from '../ui/format.ts';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { Faint } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { Weekdays } from '../ui/Weekdays.tsx';

const readCompany = (company: Company | null) => ({
  name: company?.name ?? '',
  address: company?.address ?? '',
  email: company?.email ?? '',
  currency: company?.currency ?? 'EUR',
  locale: company?.locale ?? 'en-GB',
  workDays: (company?.workDays ?? [1, 2, 3, 4, 5]) as readonly number[],
  benchMinutes: String(company?.benchMinutes ?? 480),
});
type Typed = ReturnType<typeof readCompany>;
const ASKED = api.updateCompany.body.omit({ version: true });
const SHOWN = ['name', 'email', 'address', 'currency', 'locale', 'workDays', 'benchMinutes'];
const bodyOf = (typed: Typed) => ({
  ...typed,
  workDays: [...typed.workDays],
  benchMinutes: Number(typed.benchMinutes.trim() || 'none'),
});

const named = (type: 'currency' | 'language', code: string) => new Intl.DisplayNames('en', { type }).of(code) ?? code;
const CURRENCIES = Intl.supportedValuesOf('currency').map((code): [string, string] => [
  code,
  `${code} · ${named('currency', code)}`,
]);
const LOCALES = (
  'bg-BG cs-CZ da-DK de-AT de-CH de-DE el-GR en-AU en-CA en-GB en-IE en-IN en-NZ en-US en-ZA es-ES es-MX et-EE fi-FI fr-BE ' +
  'fr-CA fr-CH fr-FR hr-HR hu-HU is-IS it-CH it-IT ja-JP ko-KR lt-LT lv-LV nb-NO nl-BE nl-NL pl-PL pt-BR pt-PT ro-RO ' +
  'sk-SK sl-SI sv-SE tr-TR uk-UA zh-CN'
)
  .split(' ')
  .map((tag): [string, string] => [tag, named('language', tag)])
  .sort((one, other) => one[1].localeCompare(other[1], 'en'));

/** The company itself: what papers say of it, and how it writes and works. */
export function CompanyForm({ onSaved }: { onSaved?: () => void }) {
  const company = useContext(CompanyContext);
  const notify = useNotify();
  const update = useCommand(
    'updateCompany',
    () => {
      notify({ text: 'The company is saved.' });
      onSaved?.();
    },
    (saved) => form.saved(saved),
  );
  const form = useRecordForm({
    record: company,
    read: readCompany,
    bodyOf,
    schema: ASKED,
    keptAs: 'company',
    name: 'the company',
    shownAt: SHOWN,
    command: update,
  });
  const { typed, set } = form;
  // As it would be written, before it is saved.
  const sample = useMemo(
    () => new Format({ ...company, currency: typed.currency, locale: typed.locale }),
    [company, typed.currency, typed.locale],
  );
  const choices = (all: [string, string][], now: string) =>
    all.some(([code]) => code === now) ? all : [[now, now] as [string, string], ...all];
  return (
    <Form onSubmit={form.submit((body) => update.mutate({ body: { ...body, version: form.version } }))}>
      <Field label="Name" {...form.field('name')} />
      <Field label="Email" {...form.field('email')} />
      <Wide>
        <TextArea label="Address, as papers print it" {...form.field('address')} />
      </Wide>
      <Choice label="Currency" {...form.field('currency')} options={choices(CURRENCIES, typed.currency)} />
      <Choice label="Number and date format" {...form.field('locale')} options={choices(LOCALES, typed.locale)} />
      <Wide>
        <Faint>
          {sample.money('1234.5')} · {sample.number('0.125')} kg · {sample.day('2026-12-31')}. Amounts keep their number
          when the currency changes; nothing is converted.
        </Faint>
      </Wide>
      <Wide>
        <Weekdays
          legend="Working days"
          value={typed.workDays}
          onChange={(workDays) => set({ workDays })}
          isMissing={form.at('workDays') !== undefined}
          locale={typed.locale}
        />
        <Part $top={10} $max={230}>
          <Field
            label="Working minutes per day"
            numeric
            suffix="min"
            value={typed.benchMinutes}
            onChange={(benchMinutes) => set({ benchMinutes })}
            error={form.at('benchMinutes') && 'Enter minutes without decimals, like 480.'}
          />
        </Part>
      </Wide>
      <Wide>
        <SaveProblem
          command={update}
          over={form}
          theirs={[company.name, company.address, company.email, company.currency, company.locale]
            .filter(Boolean)
            .join(', ')}
          shownAt={SHOWN}
        />
      </Wide>
      <div>
        <Button type="submit" look={form.dirty ? 'go' : 'plain'} busy={update.isPending}>
          Save company
        </Button>
      </div>
    </Form>
  );
}

/** The first of January 2024 was a Monday. */
