import { zodResolver } from '@hookform/resolvers/zod';
import { sayIssue } from '@yosegi/contract/said';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import {
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  get,
  type Path,
  type ResolverOptions,
  type ResolverResult,
  useForm,
} from 'react-hook-form';
import { z } from 'zod';
import { isAmong, problemOf } from '../api/client.ts';
import { focusWhenThere } from './focusWhenThere.ts';
import { like } from './keptText.ts';
import { forgetKept, keep, keptOf } from './typed.ts';
import { useUnsaved } from './unsaved.ts';

interface Versioned {
  readonly version: number;
}

interface Asks<R extends Versioned, T extends FieldValues, Body> {
  /** What is changed; null for a new one. */
  readonly record: R | null;
  /** What the fields say of it, and of a new one. */
  readonly read: (record: R | null) => T;
  /** What is sent of what the fields say, without the version. */
  readonly bodyOf: (typed: T) => Body;
  /** What the contract asks of it. */
  readonly schema: z.ZodType<unknown, unknown>;
  /** Under which what is typed stays on this machine until it is saved. */
  readonly keptAs: string;
  /** What it is called where one leaves without saving, like “the supplier”. */
  readonly name: string;
  /** The fields that say beside themselves what is wrong with them, like `packs.*.one`. */
  readonly shownAt: readonly string[];
  readonly command: { readonly error: unknown; reset(): void };
}

/** What was typed over, and what is typed. */
interface Over<T> {
  readonly base: T;
  readonly version: number;
}

export type RecordForm<T extends FieldValues, Body> = ReturnType<typeof useRecordForm<Versioned, T, Body>>;

/**
 * A record while it is typed: checked by the contract's own schema before it is sent, refusals at their fields, kept over
 * a reload and a closed tab, and not left without a word. It follows what others save as long as nothing is typed; once
 * something is, that stays, with the version it was typed over, so that a save over a change nobody here has seen is
 * refused.
 */
export function useRecordForm<R extends Versioned, T extends FieldValues, Body>(asks: Asks<R, T, Body>) {
  const { record, bodyOf, schema, keptAs, shownAt, command } = asks;
  const now: Over<T> = { base: asks.read(record), version: record?.version ?? 0 };
  const [kept] = useState(() => keptOf(keptAs, like({ ...now, typed: now.base })));
  const [over, setOver] = useState<Over<T>>(kept ?? now);
  const form = useForm<T>({
    defaultValues: (kept?.typed ?? now.base) as DefaultValues<T>,
    // The names of the fields are those of the body, whose faults are therefore at theirs.
    resolver: async (values, context, options) => {
      const judge = zodResolver(
        z
          .looseObject({})
          .transform((texts): unknown => bodyOf(texts as T))
          .pipe(schema as z.ZodType<FieldValues, unknown>),
        { error: sayIssue },
        { raw: true },
      );
      const judged = await judge(values, context, options as ResolverOptions<FieldValues>);
      // What no field shows is for the server to refuse, whose words stand beneath.
      const isSeen = pathsOf(judged.errors).every((path) => isAmong(path, shownAt));
      return (isSeen ? judged : { values, errors: {} }) as ResolverResult<T>;
    },
  });
  const typed = form.watch();
  const dirty = !isSame(typed, over.base);
  const posted = useRef(false);
  useEffect(() => {
    // What others saved shows wherever nothing was typed over it.
    const isOther = now.version > over.version || (now.version === over.version && !isSame(over.base, now.base));
    if (isOther && (!dirty || isSame(typed, now.base))) {
      setOver(now);
      if (!isSame(typed, now.base)) form.reset(now.base as DefaultValues<T>);
    }
  });
  useEffect(() => {
    if (dirty && !posted.current) keep(keptAs, { ...over, typed });
    else forgetKept(keptAs);
  });
  /** How the form that is drawn sends itself. */
  const sends = useRef<() => void>(() => {});
  const giveUp = () => {
    posted.current = true;
    settle();
    forgetKept(keptAs);
    form.reset(now.base as DefaultValues<T>);
  };
  const settle = useUnsaved(asks.name, dirty, giveUp, () => sends.current());
  const shown = useRef(shownAt);
  const { setError } = form;
  useEffect(() => {
    const problem = problemOf(command.error);
    if (!problem?.field || !isAmong(problem.field, shown.current)) return;
    setError(problem.field as Path<T>, { type: 'server', message: problem.detail });
  }, [command.error, setError]);
  const { errors, isSubmitted } = form.formState;
  const set = (some: Partial<T>) => {
    posted.current = false;
    for (const [name, value] of Object.entries(some)) {
      form.setValue(name as Path<T>, value, { shouldDirty: true, shouldValidate: isSubmitted });
      // A refusal was about what stood there before.
      form.clearErrors(name as Path<T>);
    }
  };
  const at = (path: string): string | undefined => messageIn(get(errors, path));
  return {
    typed,
    set,
    /** What is typed at this moment, which may be more than what was drawn last. */
    latest: () => form.getValues(),
    dirty,
    version: over.version,
    at,
    /** What a field of one text needs to know. */
    field: <Name extends keyof T & string>(name: Name) => ({
      value: typed[name] as string,
      onChange: (value: string) => set({ [name]: value } as Partial<T>),
      error: at(name),
    }),
    /** @param send gets what is sent once it is as the contract asks; else the first wrong field is focused */
    submit: (send: (body: Body) => void) => {
      const submit = (event?: FormEvent<HTMLFormElement>) => {
        const element = event?.currentTarget ?? document.getElementById('main');
        void form.handleSubmit(
          () => send(bodyOf(form.getValues())),
          () => focusWhenThere(() => element?.querySelector<HTMLElement>('[aria-invalid=true]')),
        )(event);
      };
      sends.current = submit;
      return submit;
    },
    /** What is typed was saved, as this version. */
    saved: ({ version }: Versioned) => {
      posted.current = true;
      settle();
      forgetKept(keptAs);
      setOver({ base: form.getValues(), version });
    },
    /** What somebody else saved over what was typed on, field by field. */
    theirs: differencesOf(over.base, now.base, typed),
    keepMine: () => setOver(now),
    takeTheirs: () => {
      form.reset(now.base as DefaultValues<T>);
      setOver(now);
    },
  };
}

/** One field that somebody else saved otherwise than it was when one began to type. */
export interface Difference {
  /** Of the field, as the form has it, like `wantedOn`. */
  readonly name: string;
  readonly theirs: string;
  readonly mine: string;
}

function differencesOf<T extends FieldValues>(was: T, theirs: T, mine: T): Difference[] {
  return Object.keys(theirs)
    .filter((name) => !isSame(was[name], theirs[name]))
    .map((name) => ({ name, theirs: asText(theirs[name]), mine: asText(mine[name]) }));
}

/** A value as it can be read beside another: texts as they are, lists by how many they hold. */
function asText(value: unknown): string {
  if (Array.isArray(value)) return value.every((one) => typeof one !== 'object') ? value.join(', ') : `${value.length}`;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'object' || value === undefined ? '' : String(value);
}

const isSame = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/** What is wrong at a field, or with a part of it that has no field of its own. */
function messageIn(error: unknown): string | undefined {
  if (typeof error !== 'object' || error === null) return undefined;
  if ('message' in error && typeof error.message === 'string') return error.message;
  return Object.values(error)
    .map(messageIn)
    .find((message) => message !== undefined);
}

/** The paths of what is wrong, like `packs.0.one`. */
function pathsOf(errors: FieldErrors | object, before = ''): string[] {
  return Object.entries(errors).flatMap(([name, error]) => {
    if (typeof error !== 'object' || error === null) return [];
    return 'message' in error ? [before + name] : pathsOf(error, `${before}${name}.`);
  });
}
