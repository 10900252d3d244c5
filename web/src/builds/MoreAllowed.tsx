import type { BuildDetail } from '@yosegi/contract';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Section } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Faint } from '../ui/text.ts';

/** Whether pickers may bring more to this bench than its lines ask for. */
export function MoreAllowed({ build }: { build: BuildDetail }) {
  const mayPlan = useCan('plan');
  const allow = useCommand('allowSpare');
  return (
    <Section $top={14}>
      <Tick
        isOn={build.spare}
        isDisabled={!mayPlan}
        onChange={(spare) =>
          allow.isPending || allow.mutate({ params: { id: build.id }, body: { version: build.version, spare } })
        }
      >
        Allow picking more than needed
      </Tick>
      <Faint as="p">Pickers see a warning when they take more. Unused parts go back when the build is finished.</Faint>
      <ProblemBox error={allow.error} />
    </Section>
  );
}
