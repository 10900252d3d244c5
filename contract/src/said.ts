import { z } from 'zod';

/**
 * What is wrong with a value that doesn't fit its schema, as a sentence for the person who typed it. Words given with a
 * schema go before these.
 */
export function sayIssue(issue: z.core.$ZodRawIssue): string {
  const { input } = issue;
  switch (issue.code) {
    case 'invalid_type':
      if (input === undefined || input === null) return 'Fill this in.';
      return EXPECTED[issue.expected] ?? NO_FIT;
    case 'too_small':
      if (issue.origin === 'string' || issue.origin === 'array')
        return Number(issue.minimum) <= 1 ? 'Fill this in.' : `At least ${issue.minimum} ${PARTS[issue.origin]}.`;
      return issue.inclusive ? `At least ${issue.minimum}.` : `More than ${issue.minimum}.`;
    case 'too_big':
      if (issue.origin === 'string' || issue.origin === 'array')
        return `At most ${issue.maximum} ${PARTS[issue.origin]}.`;
      return issue.inclusive ? `At most ${issue.maximum}.` : `Less than ${issue.maximum}.`;
    case 'invalid_format':
      return FORMATS[issue.format] ?? NO_FIT;
    case 'invalid_value':
      return issue.values.length > 12 ? NO_FIT : `Choose one of these: ${issue.values.map(String).join(', ')}.`;
    case 'unrecognized_keys':
      return `Nothing has the name ${issue.keys.join(', ')}.`;
    default:
      return NO_FIT;
  }
}

const NO_FIT = 'Check this entry.';
const EXPECTED: Readonly<Record<string, string>> = {
  string: 'Enter some text.',
  number: 'Enter a number.',
  int: 'Enter a number without decimals.',
  boolean: 'Enter true or false.',
  array: 'Enter a list.',
};
const PARTS: Readonly<Record<string, string>> = { string: 'characters', array: 'entries' };
const FORMATS: Readonly<Record<string, string>> = {
  email: 'Enter an email address, like anna@example.org.',
  date: 'Enter a date, like 2026-11-25.',
};

z.config({ customError: sayIssue });
