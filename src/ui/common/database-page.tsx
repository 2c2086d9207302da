/** In the place of every page while the database cannot be used. */
export function DatabasePage({ why }: { readonly why: string }) {
  return (
    <main className="mx-auto mt-[14vh] max-w-[560px] border border-oxide bg-leaf p-6">
      <h1 className="font-semibold font-slab text-[22px]">The database cannot be used</h1>
      <p className="mt-3">{why}</p>
      <p className="mt-3 text-ink-soft">Load this page again when it is done.</p>
    </main>
  );
}
