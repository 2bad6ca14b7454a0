let last: Promise<unknown> = Promise.resolve();

/**
 * Ask one after the other, for what takes the server long: the bench that is opened meanwhile needs it too.
 * What nobody waits for any more is not asked.
 */
export function inTurn<T>(signal: AbortSignal, ask: () => Promise<T>): Promise<T> {
  const own = last.then(() => {
    signal.throwIfAborted();
    return ask();
  });
  last = own.catch(() => undefined);
  return own;
}
