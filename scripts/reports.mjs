// What the two test runners leave behind, read as one.
import { existsSync, readFileSync } from 'node:fs';
import { stripVTControlCharacters } from 'node:util';

/**
 * @param file the JSON report of Vitest or of Playwright
 * @returns how many tests passed and failed, each fault with its message, and how many seconds each test took
 */
export function reportOf(file) {
  if (!existsSync(file)) return { passed: 0, failed: 1, faults: [`${file} was not written`], times: [] };
  const report = JSON.parse(readFileSync(file, 'utf8'));
  return report.testResults ? ofVitest(report) : ofPlaywright(report);
}

function ofVitest({ numPassedTests, numFailedTests, testResults }) {
  const times = testResults.flatMap(({ name, assertionResults = [] }) =>
    assertionResults.map(({ fullName, duration }) => ({
      seconds: (duration ?? 0) / 1000,
      name: `${name.split('/').pop()}: ${fullName}`,
    })),
  );
  return { passed: numPassedTests, failed: numFailedTests, faults: testResults.flatMap(faultsOf), times };
}

/** What went wrong in one test file: its own fault, and each of its tests that failed. */
function faultsOf({ name, status, message, assertionResults = [] }) {
  const failed = assertionResults.filter((test) => test.status === 'failed');
  const own = message && (status !== 'passed' || failed.length === 0) ? [`${name}: ${message}`] : [];
  return [...own, ...failed.map((test) => `${name}\n  ${test.fullName}\n${test.failureMessages.join('\n')}`)];
}

function ofPlaywright({ suites, errors, stats }) {
  const specs = suites.flatMap(specsOf);
  const failed = specs.filter(({ ok }) => !ok);
  return {
    passed: stats.expected,
    // One that never ran, and a fault outside of all tests, are failures too.
    failed: stats.unexpected + stats.skipped + (failed.length === 0 ? errors.length : 0),
    faults: [
      ...errors.map(({ message }) => message),
      ...failed.map((spec) => `${spec.file}\n  ${spec.title}\n${messagesOf(spec).join('\n')}`),
    ],
    times: specs.map((spec) => ({
      seconds: spec.tests.flatMap((test) => test.results).reduce((sum, { duration }) => sum + duration, 0) / 1000,
      name: `${spec.file}: ${spec.title}`,
    })),
  };
}

const specsOf = ({ specs = [], suites = [] }) => [...specs, ...suites.flatMap(specsOf)];
const messagesOf = ({ tests }) =>
  tests.flatMap(({ results }) => results.flatMap(({ errors }) => errors.map(({ message }) => plain(message))));
const plain = (text = '') => stripVTControlCharacters(text);
