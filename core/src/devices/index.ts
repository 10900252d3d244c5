export const labelSymbols = ['code128', 'gs1-128', 'gs1datamatrix'] as const;
export type LabelSymbol = (typeof labelSymbols)[number];

export const labelJobStates = ['waiting', 'printed', 'cancelled'] as const;
export type LabelJobState = (typeof labelJobStates)[number];
export * from './scale.ts';
