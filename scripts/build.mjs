// The production build by itself, so that `npm test` can make it while it checks other things.
import { buildApplication } from "./setup.mjs";

buildApplication();
