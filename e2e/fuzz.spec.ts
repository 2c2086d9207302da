/** Malformed requests at the running application: no answer over 499, and what it takes opens on every stage. */

import { mutatedJson, mutatedText } from "../fuzz/mutate";
import { seededRandom } from "../src/core/kernel";
import { copyOf, expect, OURS, openStage, test } from "./fixtures";

const NAMES = ["constructor", "__proto__", "", "a".repeat(3000), "%00", "../..", "1e12"];

test("odd addresses and query strings get a sentence", async ({ page, request }) => {
  const id = await copyOf(page, "hl-204");
  const paths = NAMES.flatMap((name) => {
    const odd = encodeURIComponent(name);
    return [
      `/jobs/${odd}`,
      `/jobs/${id}?stage=${odd}`,
      `/combined/${odd}`,
      `/nowhere/${odd}`,
      `/api/jobs/${odd}`,
      `/api/jobs/${odd}/file`,
      `/api/jobs/${odd}/picture`,
      `/api/jobs/${id}?variant=${odd}`,
      `/api/jobs/${id}/print?page=${odd}`,
      `/api/jobs/${id}/print?variant=${odd}`,
      `/api/jobs/${id}/lists/${odd}`,
      `/api/jobs/${id}/lists/cut.${odd}`,
      `/api/jobs/${id}/lists/cut.csv?variant=${odd}`,
      `/api/jobs/${id}/diagrams?task=${odd}`,
      `/api/jobs/${id}/diagrams?format=${odd}&task=${odd}`,
      `/api/jobs/${id}/picture?of=${odd}`,
      `/api/combined/${odd}/diagrams?task=${odd}`,
      `/api/rack/labels?ids=${odd}`,
      `/enter?to=${odd}`,
    ];
  });
  const told: string[] = [];
  for (const path of paths) {
    const answer = await request.get(path, { maxRedirects: 0 });
    if (answer.status() >= 500) told.push(`${answer.status()} ${path.slice(0, 120)}`);
    if (answer.status() >= 400 && path.startsWith("/api/")) {
      const text = await answer.text();
      if (/\bat \S+:\d+|node_modules/.test(text)) told.push(`a stack: ${path.slice(0, 120)}`);
    }
  }
  expect(told).toEqual([]);
});

test("100 malformed edits and bodies: what is taken opens on every stage", async ({ page, request }) => {
  test.setTimeout(240_000);
  const id = await copyOf(page, "hl-204");
  const opened = await (await request.get(`/api/jobs/${id}`)).json();
  const { job } = opened as { job: { members: object; panels: object; points: object; boughtParts: object } };
  const [member] = Object.keys(job.members);
  const [panel] = Object.keys(job.panels);
  const [point] = Object.keys(job.points);
  const [part] = Object.keys(job.boughtParts);
  const good = [
    { kind: "changeMembers", ids: [member], set: { name: "Rail", roll: "45", material: "S355" } },
    { kind: "changePanels", ids: [panel], set: { length: "600", grain: false, work: [] } },
    { kind: "changePoint", id: point, set: { at: ["1", "width / 2", "3"] } },
    { kind: "changeBoughtParts", ids: [part], set: { count: "12", note: "" } },
    { kind: "changeInfo", set: { title: "Bench", batch: 3 } },
    { kind: "setMeant", id: "a|b", meant: true },
  ];
  const statuses = new Map<number, number>();
  let [revision, taken] = [1, 0];
  const stages = async () => {
    await page.goto(`/jobs/${id}`);
    for (const stage of ["Tally", "Layout", "Buy", "Drawings", "Floor", "Shape"]) {
      await openStage(page, stage);
      await expect(page.getByRole("navigation", { name: "Stages" })).toBeVisible();
      await expect(page.getByText(/Something went wrong|cannot be read/)).toHaveCount(0);
    }
  };
  for (let i = 0; i < 100; i++) {
    const random = seededRandom(7_000 + i);
    const body = {
      expectedRevision: revision,
      edit: mutatedJson(random, good[i % good.length]),
      id: `fuzz-${i}`,
    };
    const whole = i % 5 === 0 ? mutatedText(random, JSON.stringify(body)) : JSON.stringify(body);
    const answer = await request.post(`/api/jobs/${id}/edits`, { headers: OURS, data: Buffer.from(whole) });
    statuses.set(answer.status(), (statuses.get(answer.status()) ?? 0) + 1);
    const said = (await answer.json()) as { message?: string; revision?: number; status?: string };
    if (answer.status() >= 400) expect(said.message ?? "").toMatch(/[a-z]{3}.*\.$/s);
    if (said.revision !== undefined) revision = said.revision;
    if (said.status === "applied") taken++;
    if (i === 69) await stages();
  }
  expect([...statuses.keys()].filter((status) => status >= 500)).toEqual([]);
  expect(taken).toBeGreaterThan(20);
  await stages();
  // And nobody else's job has suffered.
  await page.goto("/jobs/hl-207");
  await expect(page.getByRole("heading", { name: /HL-207/ })).toBeVisible();
});
