import type { CoverQuestion } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import { coverQuestions } from './sql.ts';

const MOST = 100;

/** Keeps a question for everybody, over the one of the same name. */
export async function keepQuestion(doing: Doing, { name, address }: BodyOf<'keepQuestion'>): Promise<CoverQuestion> {
  const { tx, person, now } = doing;
  const made = { address, made_at: now.toISOString(), made_by: person.id };
  const known = await tx.models.cover_question.findOne({ where: { name } });
  if (!known && (await tx.models.cover_question.count()) >= MOST) throw new Refusal('too-many', { most: MOST }, 'name');
  const { id } = known ? await known.update(made) : await tx.models.cover_question.create({ name, ...made });
  doing.changed('definitions');
  return found((await coverQuestions(tx)).find((question) => question.id === id));
}

export async function forgetQuestion(doing: Doing, id: number): Promise<{ id: number }> {
  await required(await doing.tx.models.cover_question.findByPk(id)).destroy();
  doing.changed('definitions');
  return { id };
}
