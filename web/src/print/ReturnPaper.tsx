import { useContext } from 'react';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { CompanyContext } from '../ui/format.ts';
import { Answer } from '../ui/States.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Barcode, Paper, Typed } from './paper.tsx';

const Label = styled.section`
  border: 1.5pt solid #000; padding: 8mm; width: 100mm; display: grid; gap: 5mm; break-inside: avoid; big { font: 700 16pt/1.2 var(--display); }
`;

/** The label that a customer sticks on what they send back. */
export function ReturnPaper({ id }: { id: number }) {
  const company = useContext(CompanyContext);
  const one = useQuestion('return', { params: { id } });
  return (
    <>
      <PrintBar to={`/take-apart/returns/${id}`} back="the return" />
      <Answer of={one}>
        {(data) => (
          <Paper>
            <h1>Return {data.number}</h1>
            <Label>
              <div>
                To
                <br />
                <big>{company.name}</big>
                <Typed>{company.address}</Typed>
              </div>
              <Barcode text={data.number} />
              <div>
                From <b>{data.customer}</b>
                <br />
                {data.what}
                <br />
                {data.reasons}
              </div>
            </Label>
            <p>Please put this label on the parcel, over the old one. Send everything that was in the box.</p>
          </Paper>
        )}
      </Answer>
    </>
  );
}
