/** What is kept of how far an order is; the rest follows from its lines. */
export const keptOrderStates = ['draft', 'sent', 'confirmed', 'cancelled'] as const;
export type KeptOrderState = (typeof keptOrderStates)[number];

export const orderStates = ['draft', 'sent', 'confirmed', 'partly-received', 'closed', 'cancelled'] as const;
export type OrderState = (typeof orderStates)[number];

export const sentHows = ['mailbox', 'print', 'csv', 'ubl'] as const;
export type SentHow = (typeof sentHows)[number];

export const mailDirections = ['out', 'in'] as const;
export type MailDirection = (typeof mailDirections)[number];

export const mailKinds = ['order', 'order-response', 'despatch-advice', 'change', 'cancellation'] as const;
export type MailKind = (typeof mailKinds)[number];
