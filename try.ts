import { readFileSync } from "node:fs";
import { loadStepReader } from "@/engines/step-reader";
import { readStatements, readStructure, separated } from "@/formats/step";
import { reading } from "@/core/recognise";
const reader = await loadStepReader();
for (const f of process.argv.slice(2)) {
  const t0 = performance.now();
  const st = readStatements(f, readFileSync(f));
  if (!st.ok) { console.log(f, JSON.stringify(st.problem)); continue; }
  const s = readStructure(st.value);
  const t1 = performance.now();
  console.log(f.split("/").pop(), st.value.schemas, s.unitNames, "uses", s.uses.length, "noplace", s.withoutPlace, [...s.products.values()].map(p=>`${p.id}:${p.name}:${p.solids}/${p.surfaces}:${p.unit}:${p.material}`).join(" "), "roots", s.roots);
  const meshes = reader(separated(st.value));
  const t2 = performance.now();
  for (const m of meshes ?? []) {
    const r = reading(m.mesh);
    const t: any = r.taken;
    console.log(m.path.join("/"), m.name, t.kind, t.hardware ?? "", t.shape ? JSON.stringify(t.shape) : "", t.kind==="member" ? [t.start,t.end].map((e:any)=>`${e.kind} ${e.z.toFixed(4)} ${(e.slope??[]).map((v:number)=>(Math.atan(v)*180/Math.PI).toFixed(3))}`).join(" | ")+` L=${(t.end.z-t.start.z).toFixed(4)} left ${t.leftOver} holes ${t.holes.length} ${t.differences}` : "", t.kind==="panel" ? `${t.length}x${t.width}x${t.thickness} holes ${t.holes.length} gr ${t.grooves.length} ${t.outline?.length}`:"", "also", r.otherwise.map((o)=>o.kind).join(), r.gaps.length ? `OPEN ${r.gaps.length}`:"", r.volume.toFixed(1));
  }
  console.log((t1-t0).toFixed(0), (t2-t1).toFixed(0), (performance.now()-t2).toFixed(0));
}
