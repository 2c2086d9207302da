declare module "*/maxrects-packer.mjs" {
  export { MaxRectsPacker } from "maxrects-packer";
}
