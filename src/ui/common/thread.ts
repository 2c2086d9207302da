/** Another thread that is asked and answers by messages: a worker, or in a test the answering itself. */
export type Thread<Message> = {
  /** `moved`: what of the message changes hands instead of being copied. */
  readonly post: (message: Message, moved?: readonly ArrayBuffer[]) => void;
  readonly end: () => void;
};
export type ThreadStart<Message, Answer> = (
  onAnswer: (answer: Answer) => void,
  onFailed: () => void,
) => Thread<Message>;

/** A worker as the other thread. */
export const threadOf =
  <Message, Answer>(startWorker: () => Worker): ThreadStart<Message, Answer> =>
  (onAnswer, onFailed) => {
    const worker = startWorker();
    worker.addEventListener("message", ({ data }: MessageEvent<Answer>) => onAnswer(data));
    worker.addEventListener("error", onFailed);
    worker.addEventListener("messageerror", onFailed);
    return {
      post: (message, moved = []) => worker.postMessage(message, { transfer: [...moved] }),
      end: () => worker.terminate(),
    };
  };
