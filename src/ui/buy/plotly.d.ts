/** The part of Plotly.js that is used here; its small distribution ships without types. */
declare module "plotly.js-basic-dist-min" {
  const Plotly: {
    react: (
      element: HTMLElement,
      traces: readonly object[],
      layout: object,
      config: object,
    ) => Promise<unknown>;
    purge: (element: HTMLElement) => void;
  };
  export default Plotly;
}
