import { useContext } from 'react';
import { CompanyContext } from '../ui/format.ts';
import { Barcode, Head, Typed } from './paper.tsx';

interface Props {
  readonly number: string;
  /** To whom it goes. */
  readonly name: string;
  readonly address: string | undefined;
}

/** Who writes, to whom, and the paper's number in bars. */
export function Letterhead({ number, name, address }: Props) {
  const company = useContext(CompanyContext);
  return (
    <>
      <Head>
        <div>
          <b>{company.name}</b>
          <Typed $small>{[company.address, company.email].filter(Boolean).join('\n')}</Typed>
        </div>
        <Barcode text={number} />
      </Head>
      <Typed $top={8} $bottom={8}>
        <b>{name}</b>
        {address && `\n${address}`}
      </Typed>
    </>
  );
}
