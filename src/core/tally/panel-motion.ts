/** The forms that a panel takes when it is turned and turned over: what twins are found by, and how its grain is laid along its length. */
import type { CornerForm, GrooveForm, HoleForm, NotchForm, PanelForm } from "./forms";

/** Length and width exchanged first, then turned over in x, y or z. */
export type Motion = {
  readonly quarter: boolean;
  readonly flipX: boolean;
  readonly flipY: boolean;
  readonly flipZ: boolean;
};

/** The form after a motion, in its own axes again. */
export function moved(form: PanelForm, motion: Motion): PanelForm {
  const { edging } = form;
  const [lengthNm, widthNm] = motion.quarter ? [form.widthNm, form.lengthNm] : [form.lengthNm, form.widthNm];
  const turned = motion.quarter
    ? { left: edging.front, right: edging.back, front: edging.left, back: edging.right }
    : edging;
  const [left, right] = motion.flipX ? [turned.right, turned.left] : [turned.left, turned.right];
  const [front, back] = motion.flipY ? [turned.back, turned.front] : [turned.front, turned.back];
  return {
    ...form,
    lengthNm,
    widthNm,
    edging: { left, right, front, back },
    outline: form.outline && movedOutline(form.outline, motion, lengthNm, widthNm),
    cutOuts: form.cutOuts.map((corners) => movedOutline(corners, motion, lengthNm, widthNm)),
    grooves: form.grooves.map((groove) => movedGroove(groove, motion, lengthNm, widthNm)),
    holes: form.holes.map((hole) => movedHole(hole, motion, lengthNm, widthNm)),
    notches: form.notches.map((notch) => movedRoom(notch, motion, lengthNm, widthNm)),
  };
}

const turnedFace = (face: GrooveForm["face"], motion: Motion) =>
  motion.flipZ ? (face === "good" ? "other" : "good") : face;

/** The corners run anticlockwise again when they were mirrored in their plane. */
function movedOutline(
  outline: readonly CornerForm[],
  motion: Motion,
  length: number,
  width: number,
): readonly CornerForm[] {
  const corners = outline.map((corner) => {
    const [x, y] = motion.quarter ? [corner.y, corner.x] : [corner.x, corner.y];
    return {
      ...corner,
      x: motion.flipX ? length - x : x,
      y: motion.flipY ? width - y : y,
    } as CornerForm;
  });
  const mirrored = [motion.quarter, motion.flipX, motion.flipY].filter(Boolean).length % 2 === 1;
  return mirrored ? corners.reverse() : corners;
}

function movedRoom({ x0, x1, y0, y1 }: NotchForm, motion: Motion, length: number, width: number): NotchForm {
  const [ax0, ax1, ay0, ay1] = motion.quarter ? [y0, y1, x0, x1] : [x0, x1, y0, y1];
  const [bx0, bx1] = motion.flipX ? [length - ax1, length - ax0] : [ax0, ax1];
  const [by0, by1] = motion.flipY ? [width - ay1, width - ay0] : [ay0, ay1];
  return { x0: bx0, x1: bx1, y0: by0, y1: by1 } as NotchForm;
}

function movedGroove(groove: GrooveForm, motion: Motion, length: number, width: number): GrooveForm {
  return {
    ...movedRoom(groove, motion, length, width),
    face: turnedFace(groove.face, motion),
    depthNm: groove.depthNm,
  };
}

function movedHole(hole: HoleForm, motion: Motion, length: number, width: number): HoleForm {
  const [x, y] = motion.quarter ? [hole.y, hole.x] : [hole.x, hole.y];
  return {
    ...hole,
    // A hole right through has no face.
    face: hole.depthNm === null ? hole.face : turnedFace(hole.face, motion),
    x: motion.flipX ? length - x : x,
    y: motion.flipY ? width - y : y,
  } as HoleForm;
}
