import * as Comlink from 'comlink';
import { JackplaneError, type ErrorCode } from '../core/base/errors';

interface Carried {
  code: ErrorCode | null;
  sentence: string;
  remedy: string;
}

/** Lets a JackplaneError cross between threads whole. Called once in every thread. */
export function carryErrors(): void {
  const handler = Comlink.transferHandlers.get('throw') as Comlink.TransferHandler<{ value: unknown }, Carried>;
  Comlink.transferHandlers.set('throw', {
    canHandle: (value: unknown): value is { value: unknown } => handler.canHandle(value),
    serialize({ value }) {
      const known = value instanceof JackplaneError;
      return [
        {
          code: known ? value.code : null,
          sentence: known ? value.sentence : value instanceof Error ? value.message : String(value),
          remedy: known ? value.remedy : '',
        },
        [],
      ];
    },
    deserialize({ code, sentence, remedy }) {
      throw code ? new JackplaneError(code, sentence, remedy) : new Error(sentence);
    },
  } satisfies Comlink.TransferHandler<{ value: unknown }, Carried>);
}
