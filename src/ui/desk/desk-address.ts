/** Where a desk gets all that it opens with. */
export const deskAddress = (id: string) => `/api/jobs/${encodeURIComponent(id)}/desk`;
