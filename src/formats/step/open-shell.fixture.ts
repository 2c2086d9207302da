/** A board whose six faces do not meet: each has rims of its own, drawn in by `gap` from where they should be. AP214, in mm. */
export function openBoardStep(
  name: string,
  [length, width, thickness]: readonly number[],
  gap: number,
): string {
  const size = [length ?? 0, width ?? 0, thickness ?? 0];
  const lines: string[] = [];
  const add = (text: string): string => {
    lines.push(`#${lines.length + 1}=${text};`);
    return `#${lines.length}`;
  };
  const real = (value: number) => (Number.isInteger(value) ? `${value}.` : String(value));
  const triple = (kind: string, values: readonly number[]) =>
    add(`${kind}('',(${values.map(real).join(",")}))`);
  const faces = [0, 1, 2].flatMap((k) =>
    [0, 1].map((side) => {
      const [u, v] = [(k + 1) % 3, (k + 2) % 3];
      const at = (a: 0 | 1, b: 0 | 1): readonly number[] => {
        const place = [0, 0, 0];
        place[k] = side * (size[k] ?? 0);
        place[u] = a ? (size[u] ?? 0) - gap : gap;
        place[v] = b ? (size[v] ?? 0) - gap : gap;
        return place;
      };
      const round = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
      const places = side ? round : round.toReversed();
      const vertices = places.map((place) => add(`VERTEX_POINT('',${triple("CARTESIAN_POINT", place)})`));
      const edges = places.map((from, i) => {
        const to = places[(i + 1) % 4] ?? from;
        const way = to.map((value, j) => Math.sign(value - (from[j] ?? 0)));
        const vector = add(`VECTOR('',${triple("DIRECTION", way)},1.)`);
        const line = add(`LINE('',${triple("CARTESIAN_POINT", from)},${vector})`);
        const edge = add(`EDGE_CURVE('',${vertices[i]},${vertices[(i + 1) % 4]},${line},.T.)`);
        return add(`ORIENTED_EDGE('',*,*,${edge},.T.)`);
      });
      const bound = add(`FACE_OUTER_BOUND('',${add(`EDGE_LOOP('',(${edges.join(",")}))`)},.T.)`);
      const normal = [0, 0, 0];
      normal[k] = side ? 1 : -1;
      const along = [0, 0, 0];
      along[u] = 1;
      const axes = add(
        `AXIS2_PLACEMENT_3D('',${triple("CARTESIAN_POINT", places[0] ?? [])},${triple("DIRECTION", normal)},${triple("DIRECTION", along)})`,
      );
      return add(`ADVANCED_FACE('',(${bound}),${add(`PLANE('',${axes})`)},.T.)`);
    }),
  );
  const model = add(`SHELL_BASED_SURFACE_MODEL('',(${add(`OPEN_SHELL('',(${faces.join(",")}))`)}))`);
  const unit = add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))");
  const angle = add("(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))");
  const solid = add("(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())");
  const within = add(
    `UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-5),${unit},'distance_accuracy_value','')`,
  );
  const context = add(
    `(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((${within}))GLOBAL_UNIT_ASSIGNED_CONTEXT((${unit},${angle},${solid}))REPRESENTATION_CONTEXT('',''))`,
  );
  const shape = add(`MANIFOLD_SURFACE_SHAPE_REPRESENTATION('',(${model}),${context})`);
  const application = add("APPLICATION_CONTEXT('core data for automotive mechanical design processes')");
  const product = add(
    `PRODUCT('${name}','${name}','',(${add(`PRODUCT_CONTEXT('',${application},'mechanical')`)}))`,
  );
  const formation = add(`PRODUCT_DEFINITION_FORMATION('','',${product})`);
  const definition = add(
    `PRODUCT_DEFINITION('design','',${formation},${add(`PRODUCT_DEFINITION_CONTEXT('part definition',${application},'design')`)})`,
  );
  add(`SHAPE_DEFINITION_REPRESENTATION(${add(`PRODUCT_DEFINITION_SHAPE('','',${definition})`)},${shape})`);
  return [
    "ISO-10303-21;",
    "HEADER;",
    "FILE_DESCRIPTION((''),'2;1');",
    `FILE_NAME('${name}','2026-01-01T00:00:00',(''),(''),'','','');`,
    "FILE_SCHEMA(('AUTOMOTIVE_DESIGN'));",
    "ENDSEC;",
    "DATA;",
    ...lines,
    "ENDSEC;",
    "END-ISO-10303-21;",
    "",
  ].join("\n");
}
