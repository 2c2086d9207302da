/** The door of the transfer: plain data from one thread to another. */
export { movedWith, type Parcel, type Plain } from "./parcel";
export { createReceiver, type Receiver, type Unpacking } from "./receiver";
export { createSender, type Sender } from "./sender";
