export * from './calendar.ts';
export * from './moment.ts';
export * from './typed.ts';
export * from './work.ts';
