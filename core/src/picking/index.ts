export * from './kinds.ts';
export * from './offer.ts';
export * from './part.ts';
export * from './pick.ts';
export * from './propose.ts';
export * from './stops.ts';
export * from './walked.ts';
