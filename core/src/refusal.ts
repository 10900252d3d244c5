/**
 * The core's way of saying no: a stable code, the field it concerns and the facts a person needs to find the way out.
 * Layers above turn it into what their world needs (an RFC 9457 problem, a message beside a field); the core never
 * words it.
 */
export class Refusal extends Error {
  constructor(
    readonly code: string,
    readonly facts: Record<string, unknown> = {},
    readonly field?: string,
  ) {
    super(code);
    this.name = 'Refusal';
  }
}
