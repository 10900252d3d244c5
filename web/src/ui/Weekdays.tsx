import { useLocale } from './format.ts';
import { Together } from './layout.ts';
import { Tick } from './Tick.tsx';
import { Faint, Row } from './text.ts';

/** Monday to Sunday. */
const DAYS = [1, 2, 3, 4, 5, 6, 7];

interface Props {
  readonly legend: string;
  readonly value: readonly number[];
  readonly onChange: (value: readonly number[]) => void;
  /** None is chosen, and one has to be. */
  readonly isMissing: boolean;
  /** The language of the names; the company's where left out. */
  readonly locale?: string;
}

/** Days of the week, to choose some of. */
export function Weekdays({ legend, value, onChange, isMissing, locale }: Props) {
  const own = useLocale();
  return (
    <Together>
      <legend>
        <Faint>{legend}</Faint>
      </legend>
      <Row $wrap $gap={16}>
        {DAYS.map((day) => (
          <Tick
            key={day}
            isOn={value.includes(day)}
            onChange={(isOn) => onChange(isOn ? [...value, day] : value.filter((one) => one !== day))}
          >
            {nameOf(day, locale ?? own)}
          </Tick>
        ))}
      </Row>
      {isMissing && <Faint role="alert">Choose at least one.</Faint>}
    </Together>
  );
}

function nameOf(day: number, locale: string): string {
  const date = new Date(2024, 0, day);
  return new Intl.DateTimeFormat(locale, { weekday: 'long' }).format(date);
}
