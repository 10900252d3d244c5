export * from './alternates.ts';
export * from './arrives.ts';
export { type Compiled, compile, NOW, type Picture } from './compile.ts';
export * from './demand.ts';
export * from './peg.ts';
export { eachGift, type Plan, plan, whenOf } from './plan.ts';
export * from './spread.ts';
export * from './waiting.ts';
