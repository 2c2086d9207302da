/** The door of who gets in: rules for requests, heads of answers, the passcode of a shared server. */

export { isShared, keptAccess } from "./kept";
export {
  COOKIE,
  cookieHead,
  isPass,
  isPasscode,
  newAccess,
  passcodeFault,
  passFor,
  readAccess,
} from "./passcode";
export { hostNames, MOST_BODY_BYTES, type RequestHeads, requestFault } from "./request-rules";
export { pagePolicy, securityHeads } from "./security-heads";
export { SlowDown } from "./slow-down";
