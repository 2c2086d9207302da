/** Threads of tests, whose messages wait until they are let through; structured clones, as a worker gives them. */
import type { ThreadStart } from "./thread";

export function waitingThreads<Message, Answer>(answering: () => (message: Message) => Answer) {
  const waiting: (() => void)[] = [];
  const fail: (() => void)[] = [];
  const posted: Message[] = [];
  const start: ThreadStart<Message, Answer> = (onAnswer, onFailed) => {
    const answered = answering();
    fail.push(onFailed);
    return {
      post: (message) => {
        posted.push(message);
        const copy = structuredClone(message);
        waiting.push(() => onAnswer(structuredClone(answered(copy))));
      },
      end: () => undefined,
    };
  };
  return { start, posted, fail, next: () => waiting.shift()?.() };
}
