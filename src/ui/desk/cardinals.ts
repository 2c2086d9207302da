/** Which point of a section lies on the line, to choose from. */

/** The cardinal points of IFC (ISO 16739-1) in words. */
export const CARDINALS = [
  { value: "10", label: "centroid" },
  { value: "5", label: "middle" },
  { value: "8", label: "top middle" },
  { value: "2", label: "bottom middle" },
  { value: "4", label: "left middle" },
  { value: "6", label: "right middle" },
  { value: "7", label: "top left" },
  { value: "9", label: "top right" },
  { value: "1", label: "bottom left" },
  { value: "3", label: "bottom right" },
];
