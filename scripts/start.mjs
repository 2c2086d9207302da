/** `npm start`: serves the application as it was built. */
import { buildApplication, checkNode, installPackages } from "./setup.mjs";

checkNode();
installPackages();
buildApplication();
const { serve } = await import("./serve.mjs");
await serve(process.argv.slice(2));
