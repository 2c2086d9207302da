/** Starts workers; their code lies in a folder that the interface does not know. */
export const startLayoutWorker = () =>
  new Worker(new URL("../../../workers/layout.worker.ts", import.meta.url), { type: "module" });

export const startDeskWorker = () =>
  new Worker(new URL("../../../workers/desk.worker.ts", import.meta.url), { type: "module" });

export const drawingWorkers = {
  views: () => new Worker(new URL("../../../workers/views.worker.ts", import.meta.url), { type: "module" }),
  set: () => new Worker(new URL("../../../workers/whole-set.worker.ts", import.meta.url), { type: "module" }),
  placing: () =>
    new Worker(new URL("../../../workers/placing.worker.ts", import.meta.url), { type: "module" }),
};
