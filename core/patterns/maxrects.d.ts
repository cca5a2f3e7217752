/** The package's main file cannot be imported by Node as it is published; its module file can. */
declare module "maxrects-packer/dist/maxrects-packer.mjs" {
  export { MaxRectsPacker } from "maxrects-packer";
}
