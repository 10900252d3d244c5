import { z } from 'zod';
import { IdParams, Numbered, PageQuery, pageOf, route } from './common.ts';
import { Mail } from './mail.ts';

export const mailRoutes = {
  mail: route({
    tag: 'Buying',
    right: 'look',
    method: 'GET',
    path: '/api/mail',
    summary: 'What went to suppliers and came from them, the newest first',
    query: PageQuery,
    response: pageOf(Mail.omit({ content: true })),
  }),
  mailContent: route({
    tag: 'Buying',
    right: 'look',
    method: 'GET',
    path: '/api/mail/:id',
    summary: 'One message as it was sent',
    params: IdParams,
    response: Mail,
  }),
  takeMail: route({
    tag: 'Buying',
    right: 'buy',
    method: 'POST',
    path: '/api/mail',
    summary: 'Take in what a supplier sent: a UBL OrderResponse or DespatchAdvice',
    body: z.object({ content: z.string().min(1).max(500_000) }),
    response: Numbered,
  }),
  answerAsSupplier: route({
    method: 'POST',
    tag: 'Devices',
    right: 'buy',
    path: '/api/devices/mailbox/:id/answer',
    summary: 'Let the stand-in for a supplier’s mailbox answer an order: confirm, delay, or send the goods off',
    params: IdParams,
    body: z.object({
      answer: z.enum(['confirm', 'delay', 'deliver', 'deliver-part']),
      /** Later than asked, for a delay. */
      days: z.number().int().min(1).max(365).default(7),
    }),
    response: Numbered,
  }),
};
