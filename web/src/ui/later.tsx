import { type ComponentType, createElement, lazy, type ReactNode, Suspense } from 'react';
import { partOrNone } from '../api/part.ts';

/**
 * A part of a screen that is fetched when it is first opened, so that the screen itself is there at once. Where it cannot be
 * had, the screen stays without it, and the page says so.
 * @param waiting what stands in its place meanwhile
 */
export function later<Props extends object, Name extends string>(
  load: () => Promise<Record<Name, ComponentType<Props>>>,
  name: Name,
  waiting: ReactNode = null,
): ComponentType<Props> {
  const Fetched = lazy<ComponentType<Props>>(async () => ({ default: (await partOrNone(load))?.[name] ?? Nothing }));
  return (props) => <Suspense fallback={waiting}>{createElement(Fetched, props)}</Suspense>;
}

const Nothing = () => null;
