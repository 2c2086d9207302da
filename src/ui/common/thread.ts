/** Another thread that is asked and answers by messages: a worker, or in a test the answering itself. */
export type Thread<Message> = { readonly post: (message: Message) => void; readonly end: () => void };
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
    return { post: (message) => worker.postMessage(message), end: () => worker.terminate() };
  };
